import { asTheyAre, between, passesButRaw, matchAll, type Dialect, type Island } from "../dialect.js";
import { phpIslands } from "../php/php.js";

const directive =
  /(?<![\w@])@([a-zA-Z]+)(\s*\((?:[^()"']|"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\((?:[^()"']|"(?:\\.|[^"\\])*"|'(?:\\.|[^'\\])*'|\([^()]*\))*\))*\))?/g;

const directiveIslands = (text: string): Island[] => [
  // Marks that are put out as they are, for a script of the page: `@{{ name }}`, `@@if`.
  ...asTheyAre(between(text, /@\{\{/, /\}\}/, () => "output")),
  ...asTheyAre(between(text, /@\{!!/, /!!\}/, () => "output")),
  ...asTheyAre(
    matchAll(text, /(?<!\w)@@(?=[a-zA-Z])/g, ({ index }) => ({
      kind: "output",
      codeStart: index + 2,
      codeEnd: index + 2,
    })),
  ),
  ...between(text, /\{\{--/, /--\}\}/, () => "comment"),
  ...between(text, /\{!!/, /!!\}/, () => "output"),
  ...between(text, /\{\{/, /\}\}/, () => "output"),
  ...between(text, /@php\b(?!\s*\()/, /@endphp\b/, () => "code"),
  ...matchAll(text, directive, (match) => ({
    kind: /^(?:lang|choice|json|yield)$/.test(match[1] ?? "") ? "output" : "code",
    codeStart: match.index + 1,
    codeEnd: match.index + match[0].length,
  })),
];

/**
 * A directive as PHP of the same length: `@include('part', [...])` as a call, a condition's as an expression in
 * parentheses, and white space for what is neither.
 */
function directiveCode(written: string): string {
  const blank = (text: string) => text.replace(/[^\r\n]/g, " ");
  if (/^@php\b(?!\s*\()/.test(written))
    return written.replace(/^@php|@endphp$/g, (mark) => `;${blank(mark.slice(1))}`);
  const open = written.indexOf("(");
  if (open < 0 || /^@end\w*\b/.test(written)) return blank(written);
  const isCondition = /^@(?:if|elseif|unless|case|while|switch|isset|empty|php)\b/.test(written);
  const name = written
    .slice(1, open)
    .replace(/^include$/, "includ_")
    .replace(/^forelse$/, "foreach");
  // The statement ends in the place of the mark before it, so that nothing moves.
  return `;${isCondition ? blank(name) : name}${written.slice(open)}`;
}

/** PHP as directives (`@if (…)`) and in double braces. */
export const directives: Dialect = {
  name: "directives",
  language: "php",
  extensions: [".blade.php"],
  sign: /(?<![\w@])@(?:if|foreach|forelse|isset|empty|auth|section|extends|include|yield|csrf|php)\b(?=\s*\((?![^\n<>]{0,200}\)\s*\{(?!\{|!!)))|(?<![\w@])@end[a-z]+\b|\{!!/g,
  islands: (text) => [...directiveIslands(text), ...phpIslands(text)],
  codeInScripts: true,
  hasLooseLookups: true,
  bindsAttributes: true,
  statement: (island) => (island.startsWith("@") ? directiveCode(island) : undefined),
  shown: ["{{ ", " }}"],
  // What a component is given in braces would be escaped there, and once more where it shows that.
  attributeOn: (element, call) =>
    /^x-[a-z]/.test(element) ? `:{name}="${call.replaceAll('"', "'")}"` : undefined,
  branches: {
    head: /@if\s{0,9}\(\s{0,9}$/,
    tail: /^\s{0,9}\)/,
    otherwise: /@else\b/,
    end: /@endif\b/,
    next: /@(?:else|endif)/,
  },
  passesIsland: (island) => !island.startsWith("@") && passesButRaw("{!!")(island),
};
