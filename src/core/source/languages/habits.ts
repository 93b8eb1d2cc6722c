/** Names of languages that no text for people is in, as strings of several lines are named for them. */
export const codeNames =
  /^_*(?:SQL|RUBY|RB|XML|JSON|YA?ML|SH|BASH|SHELL|JS|JAVASCRIPT|CSS|S[AC]SS|GRAPHQL|GQL|SCRIPT|CODE|PYTHON|PY|PHP|CONF|CONFIG|INI|TOML|CSV|CMD|POWERSHELL|LUA|DOT|REGEXP?)_*$/;

/** What names mean in the programs of one host language: data that the evidence looks up. */
export interface Habits {
  /** Attributes and props whose value users read or hear. */
  readonly textAttributes: ReadonlySet<string>;
  /** Attributes and props whose value only programs read. */
  readonly codeAttributes: ReadonlySet<string>;
  /** Elements whose content is code, or is not shown. */
  readonly codeElements: ReadonlySet<string>;
  /** Names that hold text for users, by how they end. */
  readonly textName: RegExp;
  /** Names that hold text for users, by how they begin. */
  readonly textPrefix: RegExp;
  /** Objects, lists and classes whose members are texts: `errors`, `Labels`. */
  readonly textHolder: RegExp;
  /** Names that hold something for programs, by how they end. */
  readonly codeName: RegExp;
  /** Calls that show their argument to users. */
  readonly textCall: RegExp;
  /** Those of them whose first argument names a field or a kind, and whose later ones are shown. */
  readonly namedFirst: RegExp;
  /** Calls with the places (the first, and the last where there are more) of what they show: what a command's option is for. */
  readonly textAt: readonly (readonly [call: RegExp, first: number, last?: number])[];
  /** Calls that give the name in their first argument the value in their second. */
  readonly namingCall: RegExp;
  /** Calls that write to a terminal, for users or for developers. */
  readonly printingCall: RegExp;
  /** What files have that are run in a terminal, where the calls that write pages elsewhere write to it. */
  readonly terminalFile?: RegExp;
  /** Calls whose argument no user sees. */
  readonly codeCall: RegExp;
  /** Calls that write for developers. */
  readonly developerCall: RegExp;
  /** Those of them that write where a terminal shows errors. */
  readonly errorStream: RegExp;
  /** Errors made for developers first, though users sometimes see them. */
  readonly errorCall: RegExp;
  /** Members and variables that show what is assigned to them. */
  readonly textMember: RegExp;
  /** Tags of templates that hold another language. */
  readonly codeTemplate: RegExp;
}

/** The words of a list, as a set. */
export function words(list: string): ReadonlySet<string> {
  return new Set(list.trim().split(/\s+/));
}

/** A test for the last word of a name: of `page_title`, `pageTitle`, `PAGE_TITLE` and `title`; not of `subtitle` for `title`. */
export function nameEndingIn(list: string): RegExp {
  const plain = list.trim().split(/\s+/);
  const capitalized = plain.map((word) => word.charAt(0).toUpperCase() + word.slice(1));
  const upper = plain.map((word) => word.toUpperCase());
  const start = `(?:^|[_.-])(?:${[...plain, ...capitalized, ...upper].join("|")})`;
  return new RegExp(`(?:${start}|[a-z0-9](?:${[...capitalized, ...upper].join("|")}))$`);
}

/** A test for a call by its last names: `alert`, `toast.error`. */
export function callOf(list: string): RegExp {
  return new RegExp(`(?:^|\\.)\\$?(?:${list.trim().split(/\s+/).join("|")})$`);
}

/** Matches nothing. */
export const never = /(?!)/;
