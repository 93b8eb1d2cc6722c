import { onOneLine, safeText } from "../safe-text.js";
import type { Reporter } from "./reporter.js";

/** One line for each finding, as compilers write them. */
export const lines: Reporter = {
  report: ({ findings }) =>
    findings
      .map(
        ({ file, line, column, severity, message, rule }) =>
          safeText(`${onOneLine(file)}:${line}:${column}: ${severity}: ${onOneLine(message)} [${rule}]`) +
          "\n",
      )
      .join(""),
};
