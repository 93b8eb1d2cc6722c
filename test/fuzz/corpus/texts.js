"use strict";
// The texts of the shop.
export const en = {
  title: "All crossings",
  "a-b": 'It\'s full', // beside
  days: ["Monday", `Tuesday`],
  count: (n) => (n === 1 ? "one" : `${n} of /[{]/`),
  cart: { empty: `Nothing
yet`, n: 5, on: true, none: null, f() { return { a: 1 }; }, ...more, [key]: "x" },
};
export default en;
