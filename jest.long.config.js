import { long, shared } from "./jest.config.js";

export default { ...shared, testRegex: long };
