import { withoutQuoted } from "../../text/delimited.js";

/** Calls and members that only change a value's form, so that they name nothing. */
const formOnly = new Set(
  "to_s to_i html_safe strftime length size count capitalize upcase downcase strip trim toString toFixed toLocaleString toUpperCase toLowerCase format escape h raw e htmlspecialchars htmlentities esc_html esc_attr value get self this fn join first last call sprintf printf number_format if else and or not None True False null nil true false new".split(
    " ",
  ),
);

/**
 * A name for the value of an expression in any language, as a message's argument: its last identifier that says what it
 * is. `@user.first_name` gives `first_name`, `$order->total()` gives `total`, `h(name)` gives `name`.
 */
export function nameFromCode(code: string): string {
  const bare = withoutQuoted(code, `"'`, () => " ")
    .replace(/\|.*$/s, "")
    .replace(/\s\?\s.*$|\sif\s.*$/s, " ")
    // What stands in for a missing value names it less than the value does.
    .replace(/\s(?:or|\?\?|\?:)\s.*$/s, " ");
  const names = bare.match(/[A-Za-z_][A-Za-z0-9_]*/g) ?? [];
  const telling = names.filter((name) => !formOnly.has(name));
  const chosen = telling[telling.length - 1] ?? names[0] ?? "value";
  const trimmed = chosen.replace(/^(?:get|format|render)_?(?=[A-Z_])/, "").replace(/^_+/, "");
  return trimmed === "" ? "value" : trimmed.charAt(0).toLowerCase() + trimmed.slice(1);
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
