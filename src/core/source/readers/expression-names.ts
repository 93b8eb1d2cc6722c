import { withoutQuoted } from "../../text/delimited.js";

/** Calls and members that only change a value's form, so that they name nothing. */
const formOnly = new Set(
  "to_s to_i html_safe strftime length size count capitalize upcase downcase strip trim toString toFixed toLocaleString toLocaleDateString toLocaleTimeString toDateString toISOString toUpperCase toLowerCase format escape h raw e htmlspecialchars htmlentities esc_html esc_attr value get self this fn join first last call sprintf printf number_format Math math floor ceil round abs max min sum Array array Object String Number parseInt parseFloat intval floatval strval int str float len count_ sizeof implode explode join str_replace ucfirst ucwords lcfirst nl2br urlencode rawurlencode encodeURIComponent json_encode JSON stringify GET POST REQUEST SERVER SESSION COOKIE _GET _POST _REQUEST _SERVER _SESSION _COOKIE if else and or not None True False null nil true false new".split(
    " ",
  ),
);

/**
 * A name for the value of an expression in any language, as a message's argument: its last identifier that says what it
 * is. `@user.first_name` gives `first_name`, `$order->total()` gives `total`, `h(name)` gives `name`.
 */
export function nameFromCode(code: string): string {
  // `row["title"]` and `params[:id]` are named by what they pick.
  const picked = /\[\s*(?:"(\w+)"|'(\w+)'|:(\w+))\s*\]\s*$/.exec(code);
  const member = picked && (picked[1] ?? picked[2] ?? picked[3]);
  if (member !== undefined && member !== null && /[a-z]/.test(member) && /^[A-Za-z_]/.test(member))
    return inLowerCase(member);
  // What is got by a key is named by its last part: `t("main.title")`, `getSetting('site_name')`.
  const got =
    /(?:^|[.>:\s])(?:get[A-Z_]?\w{0,40}|\w{1,2}|text|setting|param|option)\(\s{0,9}(?:"([A-Za-z][\w.-]{2,80})"|'([A-Za-z][\w.-]{2,80})')\s{0,9}(?:,[^()]{0,40})?\){1,3}\s*$/.exec(
      code,
    );
  const part = (got?.[1] ?? got?.[2])?.split(/[.-]/).at(-1) ?? "";
  if (/^(?=[^a-z]{0,80}[a-z])[A-Za-z_]\w{0,80}$/.test(part)) return inLowerCase(part);
  const bare = withoutQuoted(code, `"'`, () => " ")
    // Of two strings the test is what says something: `"closed" if closed else "open"`.
    .replace(/^\s{1,99}if\s([^]{1,200}?)\selse\s[^]*$/, "$1")
    .replace(/\|.*$/s, "")
    .replace(/\s\?\s.*$|\sif\s.*$/s, " ")
    // A constant behind what a call is given says how, not what: `escape($name, ENT_QUOTES)`.
    .replace(/,\s{0,9}[A-Z][A-Z0-9]{0,20}_[A-Z0-9_]{1,40}\b/g, " ")
    // What stands in for a missing value names it less than the value does.
    .replace(/\s(?:or|\?\?|\?:)\s.*$/s, " ");
  // At the end of a path that nothing calls, such a name is a value's own: `field.min`.
  const own = /(?:\.|->)(min|max|sum|abs|first|last)$/.exec(bare.trim())?.[1];
  if (own !== undefined && !bare.includes("(")) return own;
  const names = bare.match(/[A-Za-z_][A-Za-z0-9_]*/g) ?? [];
  const telling = names.filter((name) => !formOnly.has(name));
  const chosen = telling[telling.length - 1] ?? names[0] ?? "value";
  const trimmed = chosen.replace(/^(?:get|format|render)_?(?=[A-Z_])/, "").replace(/^_+/, "");
  return trimmed === "" ? "value" : inLowerCase(trimmed);
}

/** A name as a translator reads it: a constant's in lower case, any other with a small letter first. */
function inLowerCase(name: string): string {
  return /[a-z]/.test(name) ? name.charAt(0).toLowerCase() + name.slice(1) : name.toLowerCase();
}

/** Gives each distinct code its own name: the wanted one, or with a number behind it where it is taken. */
export function uniqueNames(): (wanted: string, code: string) => string {
  const taken = new Map<string, string>();
  return (wanted, code) => {
    for (let number = 1; ; number++) {
      const name = number === 1 ? wanted : `${wanted}${number}`;
      const holder = taken.get(name);
      if (holder === undefined || holder === code) {
        taken.set(name, code);
        return name;
      }
    }
  };
}
