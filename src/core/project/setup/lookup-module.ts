/** What a lookup module is written for. */
export interface LookupModuleRequest {
  /** Whether it is TypeScript. */
  readonly isTyped: boolean;
  /** Whether it is a CommonJS module, taken in by `require()`; in TypeScript it never is. */
  readonly isCommon?: boolean;
  readonly source: string;
  /** All locales, the source among them, with the path of each catalog as the module imports it. */
  readonly catalogs: readonly { readonly locale: string; readonly path: string }[];
}

/**
 * The text of a small module that looks up texts and fills them: for projects where nothing does that yet. It needs no
 * package; arguments, plurals, selects, numbers and dates of ICU's syntax are filled with what `Intl` has.
 */
export function lookupModule({ isTyped, isCommon = false, source, catalogs }: LookupModuleRequest): string {
  const as = (type: string) => (isTyped ? type : "");
  const nameOf = (locale: string) => locale.replace(/-(\w)/g, (_, letter: string) => letter.toUpperCase());
  const given = isCommon ? "" : "export ";
  const imports = catalogs.map(({ locale, path }) =>
    isCommon
      ? `const ${nameOf(locale)} = require("${path}");`
      : `import ${nameOf(locale)} from "${path}"${isTyped ? "" : ' with { type: "json" }'};`,
  );
  const members = catalogs.map(({ locale }) =>
    /-/.test(locale) ? `"${locale}": ${nameOf(locale)}` : locale,
  );
  return `// Looks up the texts of this program. \`fond init --runtime\` wrote it; it is yours to change.
// A new locale has its import and its place in the list below.
${imports.join("\n")}

const catalogs${as(": Readonly<Record<string, Catalog>>")} = { ${members.join(", ")} };
const sourceLocale = "${source}";
${
  isTyped
    ? `
/** Texts, or groups of them. */
interface Catalog {
  readonly [name: string]: string | Catalog;
}
type Values = Readonly<Record<string, unknown>>;
type Part = (values: Values, count?: number) => string;

/** The keys with the values that their texts take, once \`fond declare\` fills them in; until then any key will do. */
// eslint-disable-next-line @typescript-eslint/no-empty-object-type
export interface Texts {}
type Key = keyof Texts extends never ? string : keyof Texts;
type ValuesOf<One> = keyof Texts extends never
  ? [values?: Values]
  : [Key] extends [One]
  ? unknown[]
  : Texts[One & keyof Texts] extends undefined
    ? []
    : [values: Texts[One & keyof Texts]];
`
    : ""
}
let current = sourceLocale;

/** Chooses the locale of all lookups from now on. */
${given}function setLocale(locale${as(": string")})${as(": void")} {
  current = locale;
}

/** The text of a key in the current locale, filled with values. */
${given}function t${as("<One extends Key>")}(${isTyped ? "key: One, ...values: ValuesOf<One>" : "key, values"})${as(": string")} {
  return textIn(current, key, ${isTyped ? "(values as readonly Values[])[0]" : "values"});
}

/** The same in any locale, for programs that serve several at once. */
${given}function textIn(locale${as(": string")}, key${as(": string")}, values${as(": Values")} = {})${as(": string")} {
  for (const one of [locale, locale.split("-", 1)[0] ?? locale, sourceLocale]) {
    const text = find(catalogs[one], key);
    if (text !== undefined) return compiled(text, one)(values);
  }
  return key;
}

function find(catalog${as(": Catalog | undefined")}, key${as(": string")})${as(": string | undefined")} {
  let found${as(": string | Catalog | undefined")} = catalog;
  for (const part of key.split(".")) found = typeof found === "object" ? found[part] : undefined;
  return typeof found === "string" ? found : undefined;
}

const known = new Map${as("<string, Part>")}();

function compiled(text${as(": string")}, locale${as(": string")})${as(": Part")} {
  const id = locale + "\\u0000" + text;
  const part = known.get(id) ?? compile(text, locale);
  known.set(id, part);
  return part;
}

/** Reads a message: {name}, {n, plural, one {# boat} other {# boats}}, select, number, date and time; quotes as ICU has them. */
function compile(text${as(": string")}, locale${as(": string")})${as(": Part")} {
  const numbers = new Intl.NumberFormat(locale);
  let at = 0;

  function space()${as(": void")} {
    while (/\\s/.test(text[at] ?? "")) at++;
  }

  function word()${as(": string")} {
    space();
    const start = at;
    while (at < text.length && !/[\\s,{}]/.test(text[at] ?? "")) at++;
    const found = text.slice(start, at);
    space();
    return found;
  }

  function parts(counts${as(": boolean")})${as(": Part")} {
    const list${as(": Part[]")} = [];
    let plain = "";
    const end = () => {
      const said = plain;
      if (said !== "") list.push(() => said);
      plain = "";
    };
    while (at < text.length && text[at] !== "}") {
      const unit = text[at] ?? "";
      const next = text[at + 1] ?? "";
      if (unit === "'" && next === "'") {
        plain += "'";
        at += 2;
      } else if (unit === "'" && (next === "{" || next === "}" || (counts && next === "#"))) {
        for (at++; at < text.length; at++) {
          if (text[at] !== "'") plain += text.charAt(at);
          else if (text[at + 1] === "'") {
            plain += "'";
            at++;
          } else break;
        }
        at++;
      } else if (unit === "{") {
        end();
        list.push(argument(counts));
      } else if (unit === "#" && counts) {
        end();
        list.push((_, count) => numbers.format(count ?? 0));
        at++;
      } else {
        plain += unit;
        at++;
      }
    }
    end();
    return (values, count) => list.map((part) => part(values, count)).join("");
  }

  function argument(counts${as(": boolean")})${as(": Part")} {
    at++;
    const name = word();
    if (text[at] === "}") {
      at++;
      return (values) => shown(values[name]);
    }
    at++;
    const type = word();
    if (/^(?:plural|selectordinal|select)$/.test(type)) return choice(name, type, counts);
    const start = text[at] === "," ? ++at : at;
    while (at < text.length && text[at] !== "}") at++;
    const style = text.slice(start, at).trim();
    at++;
    return (values) => formatted(values[name], type, style);
  }

  function choice(name${as(": string")}, type${as(": string")}, counts${as(": boolean")})${as(": Part")} {
    at++;
    space();
    const offset = Number(/^offset:\\s*(\\d+)/.exec(text.slice(at, at + 40))?.[1] ?? 0);
    if (text.startsWith("offset:", at)) {
      at += 7;
      word();
    }
    const branches${as(": Record<string, Part>")} = {};
    for (space(); at < text.length && text[at] !== "}"; space()) {
      const selector = word();
      at++;
      branches[selector] = parts(type !== "select" || counts);
      at++;
    }
    at++;
    const rules = new Intl.PluralRules(locale, { type: type === "selectordinal" ? "ordinal" : "cardinal" });
    return (values, count) => {
      const value = values[name];
      if (type === "select") return (branches[String(value)] ?? branches["other"])?.(values, count) ?? "";
      const number = Number(value);
      const branch = branches["=" + number] ?? branches[rules.select(number - offset)] ?? branches["other"];
      return branch?.(values, number - offset) ?? "";
    };
  }

  function shown(value${as(": unknown")})${as(": string")} {
    if (typeof value === "number") return numbers.format(value);
    if (value instanceof Date) return new Intl.DateTimeFormat(locale, { dateStyle: "medium" }).format(value);
    return value === undefined || value === null ? "" : String(value);
  }

  function formatted(value${as(": unknown")}, type${as(": string")}, style${as(": string")})${as(": string")} {
    if (type === "number") {
      const options${as(": Intl.NumberFormatOptions")} =
        style === "percent" ? { style: "percent" } : style === "integer" ? { maximumFractionDigits: 0 } : {};
      return new Intl.NumberFormat(locale, options).format(Number(value));
    }
    if (type !== "date" && type !== "time") return shown(value);
    const length = /^(?:short|medium|long|full)$/.test(style) ? style : "medium";
    const options${as(": Intl.DateTimeFormatOptions")} = { [type + "Style"]: length };
    return new Intl.DateTimeFormat(locale, options).format(value instanceof Date ? value : new Date(Number(value)));
  }

  return parts(false);
}
${isCommon ? "\nmodule.exports = { setLocale, t, textIn };\n" : ""}`;
}
