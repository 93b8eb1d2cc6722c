import { between, codeBlock, hasNoFilter, matchAll, type Dialect, foreignPercents } from "../dialect.js";

/** `{$name}`, `{if …}`, `{/if}`, and comments in `{* … *}`: a brace with a blank behind it is text. */
export const curly: Dialect = {
  name: "curly",
  language: "expression",
  extensions: [],
  // Behind another brace it is a mark of templates with two.
  sign: /(?<!\{)(?:\{\$\w|\{\/?(?:if|foreach|section|include|assign|block|extends|capture|else|elseif)\b[^{}]{0,500}\}|\{\/?(?:t|trans|translate|literal)\}|\{(?:"[^"{}\n]{1,300}"|'[^'{}\n]{1,300}')\|\w{1,40}[}:|]|\{[a-z]\w{0,40} [a-z]\w{0,40}=(?:["'$]|\w{1,40}[ }])|\{\*)/g,
  islands: (text) => [
    ...between(text, /\{\*/, /\*\}/, () => "comment"),
    ...between(text, /\{(?:ignore|comment)\}/, /\{\/(?:ignore|comment)\}/, () => "comment"),
    ...between(text, /\{literal\}/, /\{\/literal\}/, () => "code"),
    // A string that is shown as a filter makes it: {'All boats'|t}
    ...matchAll(
      text,
      /\{(?:"(?:\\.|[^"\\{}\n]){1,500}"|'(?:\\.|[^'\\{}\n]){1,500}')\|[a-zA-Z_][^{}\n]{0,300}\}/g,
      ({ index, 0: all }) => ({ kind: "output", codeStart: index + 1, codeEnd: index + all.length - 1 }),
    ),
    ...matchAll(
      text,
      /\{([$/#]?[a-zA-Z_](?:[^{}\n]|\{(?:[^{}\n]|\{[^{}\n]{0,200}\}){0,300}\}){0,500}|(?!return\b|var\b|let\b|const\b|throw\b|new\b)[a-zA-Z_]\w{0,60}\s{1,99}\w{1,60}=(?:[^{}]|\{[^{}\n]{0,300}\}){0,1500})\}/g,
      (match) => ({
        kind: /^[$#]/.test(match[1] ?? "") ? "output" : "code",
        codeStart: match.index + 1,
        codeEnd: match.index + match[0].length - 1,
      }),
    ),
  ],
  codeInScripts: true,
  shownMember: [["{", "}"]],
  filtered: { open: "{", bar: "|", close: "}" },
  closeOfOther: (code) =>
    // A text of its own: `{t}All boats{/t}`; one that takes it as a setting has no block.
    /^(?:t|tr|trans|translate|i18n|l10n|gettext|_)(?=\s|$)(?![^]*\s(?:text|key|string|msg|id|name)\s*=)/.test(
      code,
    )
      ? `/${/^\w+/.exec(code)?.[0] ?? ""}`
      : codeBlock.test(
            /^(?:block|capture)\s+(?:name\s*=\s*|assign\s*=\s*)?["']?(\w{1,80})/.exec(code)?.[1] ?? "",
          )
        ? `/${/^\w+/.exec(code)?.[0] ?? ""}`
        : undefined,
  foreign: foreignPercents,
  bindsAttributes: false,
  branches: {
    head: /\{if\s{1,9}$/,
    tail: /^\s{0,9}\}/,
    otherwise: /\{else\}/,
    end: /\{\/if\}/,
    next: /\{(?:else|\/if)/,
  },
  passesIsland: hasNoFilter,
};
