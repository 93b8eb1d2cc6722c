import { defineCommand } from "../command.js";
import { diskFiles } from "../../disk/disk-files.js";
import { exitStatus } from "../exit.js";

/** `fond editor` */
export const editorCommand = defineCommand({
  name: "editor",
  summary: "Serve editors over stdio (LSP): findings as one types, hover, completion, rename, extraction",
  heeds: {},
  declare: (command) =>
    command.option("--stdio", "talk over standard input and output; there is no other way"),
  run: async ({ options }) => {
    const { serveEditor } = await import("../../editor/server.js");
    await serveEditor(options.cwd, () => diskFiles(options.cwd));
    return exitStatus.inOrder;
  },
});
