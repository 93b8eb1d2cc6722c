import { fixedText, type Literal } from "../../source/model.js";
import { writesForDevelopers } from "../calls.js";
import { evidence, isBesideWidget, isTerminalProgram, neighbor, type Evidence } from "../company.js";
import type { EvidenceSource } from "./source.js";

/** What an object says of itself: `toString` with its values. */
export const described: EvidenceSource = ({ context, pieces }) =>
  /^(?:toString|ToString|__repr__|inspect|GoString|debugDescription)$/.test(context.component ?? "") &&
  (pieces.length > 1 || /[=:[\](),]/.test(fixedText(pieces)))
    ? evidence("described", "part of what an object says of itself")
    : undefined;

export const debugged: EvidenceSource = ({ context }) =>
  context.isDebugging ? evidence("debugging", "reached only while debugging, or in a task") : undefined;

export const used: EvidenceSource = ({ context, pieces }, habits) => {
  switch (context.role) {
    case "compared":
      return evidence(
        "compared",
        context.name === "case"
          ? "a case of a switch"
          : context.name === "condition"
            ? "decides a condition"
            : `compared with ${context.name}`,
      );
    case "key":
      return context.name !== undefined &&
        (/^[:'"]?[a-z][\w-]*['"]?$/.test(context.name) ||
          // Choices with what they count for: `{ "Two weeks" => 14 }`.
          (/^\d{1,4}(?:\.\d)?$/.test(context.name) && /^\p{Lu}.*\p{L} \p{L}/u.test(fixedText(pieces))))
        ? evidence("namedChoice", `shown for ${context.name}, perhaps`)
        : evidence("objectKey", "the name of a property");
    case "index":
      return evidence("index", "picks a property");
    case "tagged":
      return habits.codeTemplate.test(context.name ?? "")
        ? evidence("tagged", `a template of ${context.name}`)
        : evidence("unknownCall", `a template of ${context.name}`);
    case "type":
    case "module":
      return evidence("typeOrModule", context.role === "type" ? "part of a type" : "the name of a module");
    case "member":
      return evidence("methodOfString", "a method is called on it");
    case "thrown":
      if (context.isShown) return evidence("textCall", "thrown, and shown where it is caught");
      return evidence("developerError", "thrown, so developers read it");
    default:
      return undefined;
  }
};

/** A mark that gives a text its key: the text is found by that, and stands in the template on purpose. */
export function marked({ isMarked, isBesideKey, key }: Literal): Evidence | undefined {
  if (isBesideKey) return evidence("lookedUp", "given to a lookup with its key");
  return isMarked === true && key !== undefined
    ? evidence("lookedUp", `its mark gives it the key "${key}"`)
    : undefined;
}

/** How values are checked: `required|max:40`. */
const checks = /^[a-z_]{2,40}(?:[: ][\w,.-]{1,60})?(?:\|[a-z_]{2,40}(?:[: ][^|]{0,80})?){1,20}$/;

/** What stands among such checks is one, whatever its name: `["description" => "string", "name" => "required|string"]`. */
export const besideChecks: EvidenceSource = ({ context }, _habits, _own, { literals, index }) => {
  if (context.role !== "property" || context.properties === undefined) return undefined;
  const group = literals
    .slice(Math.max(index - 16, 0), index + 17)
    .filter(({ context: other }) => other.role === "property" && other.element === context.element);
  const texts = group.map(({ pieces }) => fixedText(pieces));
  const isProse = (text: string) => /[.!?]$/.test(text) || (/^\p{Lu}/u.test(text) && text.includes(" "));
  return texts.some((text) => checks.test(text)) && !texts.some(isProse)
    ? evidence("valueCheck", "says how a value is checked, as those beside it do")
    : undefined;
};

/** A table of the code has the source's text beside it. */
export const ofOtherLocale: EvidenceSource = ({ inLocale }) =>
  inLocale === undefined
    ? undefined
    : evidence("otherLanguage", `the text for ${inLocale}, beside those of other locales`);

export const besideWidget: EvidenceSource = (literal, _habits, _own, place) => {
  const before = neighbor(place, -1);
  if (before && isBesideWidget(before, { ...place, index: place.index - 1 }))
    return evidence("codeTwin", "the kind of a part of a window");
  return isBesideWidget(literal, place) && /\p{Lu}.*(?:\p{L}|:)|\s/u.test(fixedText(literal.pieces))
    ? evidence("besideWidget", "stands beside the kind of a part of a window")
    : undefined;
};

/** What another program is given to read: `input=answer.encode()`, `child.stdin.write(answer)`, `process.communicate(answer)`. */
const toProgram =
  "(?:\\binput ?= ?|\\b(?:exec|spawn)\\w{0,12}\\([^;]{0,200}?\\binput: ?|\\.communicate\\( ?(?:input ?= ?)?|\\bstdin\\.(?:write|end|puts)\\( ?|\\.send(?:line|all)\\( ?|\\bfwrite\\( ?\\$pipes\\[0\\], ?)";

/** What goes into the headers of a message (RFC 9110, section 5): `headers = ["Host: " + host]`. */
export const inHeaders: EvidenceSource = ({ context, pieces }) => {
  const { name = "", element = "", properties = [] } = context;
  const isHolder = [name, element, ...properties].some((one) =>
    /(?:^|[a-z_.>])[hH]eaders(?:\.(?:push|append|add))?$/.test(one),
  );
  const isOfTable = /table|column|grid|csv|sheet|row/i.test([name, element, ...properties].join(" "));
  return isHolder &&
    !isOfTable &&
    /^[A-Z][A-Za-z]{1,20}(?:-[A-Za-z]{1,20}){0,4}: ?/.test(fixedText(pieces)) &&
    context.role !== "content"
    ? evidence("codeName", "a header of a message")
    : undefined;
};

/** So far behind a text the value that holds it is looked for, in code units. */
const longestWay = 1_500;

/** A text that goes into another program, which reads it. */
export const piped: EvidenceSource = ({ context, span }, _habits, _own, { text }) => {
  const { role, name = "" } = context;
  if (
    text === undefined ||
    (role !== "variable" && role !== "assignment" && role !== "argument" && role !== "property")
  )
    return undefined;
  const said = "what another program reads";
  if (role === "argument")
    return /\.communicate$|stdin\.(?:write|end|puts)$|\.send(?:line|all)$/.test(name)
      ? evidence("piped", said)
      : undefined;
  if (role === "property")
    return context.properties?.at(-1) === "input" &&
      /^(?:run|communicate|Popen|check_output|check_call|execFileSync|execSync|spawnSync)$/.test(
        (context.element ?? "").replace(/^.*\./, ""),
      )
      ? evidence("piped", said)
      : undefined;
  if (!/^\$?\w{1,60}$/.test(name)) return undefined;
  const use = new RegExp(`${toProgram}${name.replace("$", "\\$")}(?!\\w)`);
  return use.test(text.slice(span.end, span.end + longestWay)) ? evidence("piped", said) : undefined;
};

/** Errors that say what developers have done wrong, with the value in brackets behind them, and the text of an assertion. */
const raised =
  /(?:\braise\s{1,4}|\bthrow\s{1,4}new\s{1,4})(?:\w{1,40}\.){0,3}(?:Assertion|NotImplemented|Type|Attribute|Key|Index|Name|Import)(?:Error|Exception)\(\s{0,20}$|\bassert\s[^\n]{1,200},\s{0,9}\(?$/;

/** How a value is declared that is known up to the end of its block: `const line = `, `String line = `, `line := `. */
const inBlock =
  /(?:^|\n)([ \t]{0,80})((?:const|let|final|val|String|string|auto)\s{1,4})?[\w$]{1,60}\s{0,4}(?::\s{0,4}string\s{0,4})?:?=\s{0,9}\(?\s{0,99}$/;

/** A value that is only written for developers: `const line = …; log.info(line);`. */
export const loggedOnly: EvidenceSource = ({ context, span }, habits, _own, { text, ...place }) => {
  const { role, name = "", atLoad } = context;
  if (text === undefined || role !== "variable" || atLoad || !/^[\w$]{1,60}$/.test(name)) return undefined;
  const declared = inBlock.exec(text.slice(Math.max(span.start - 200, 0), span.start));
  if (!declared) return undefined;
  const [, { length: indent } = "", keyword] = declared;
  // Without a word that declares it, it may be known in the whole function.
  const ends =
    keyword === undefined
      ? /\n(?:[^ \t\n]|[ \t]{1,20}(?:async )?(?:def|class|function|public|private|protected|static)\s)/
      : new RegExp(`\\n[ \\t]{0,${Math.max(indent - 1, 0)}}[^ \\t\\n]`);
  const end = ends.exec(text.slice(span.end, span.end + longestWay));
  if (indent === 0 || !end) return undefined;
  const block = text.slice(span.end, span.end + end.index);
  let uses = 0;
  for (let at = block.indexOf(name); at >= 0; at = block.indexOf(name, at + name.length)) {
    if (/[\w$]/.test(block.charAt(at + name.length)) || /[\w$]/.test(block.charAt(at - 1))) continue;
    const before = block.slice(Math.max(at - 240, 0), at);
    const callee = /([\w$.>:-]{1,60})\(\s{0,20}$/.exec(before.slice(-90))?.[1];
    uses++;
    if (raised.test(before)) continue;
    if (callee === undefined || !writesForDevelopers(callee, habits)) return undefined;
    if (habits.printingCall.test(callee) && isTerminalProgram(place)) return undefined;
  }
  return uses > 0 ? evidence("codeCall", `${name} is only written for developers`) : undefined;
};

/** What stands beside a key, and is shown only where no catalog has the key. */
export const besideKey: EvidenceSource = (literal) => {
  const name =
    literal.context.role === "attribute"
      ? (literal.context.name ?? "")
      : (literal.context.properties?.at(-1) ?? "");
  return /^default(?:Message|Text|Translation)$/.test(name)
    ? evidence("lookedUp", `${name}, which stands for a key`)
    : undefined;
};
