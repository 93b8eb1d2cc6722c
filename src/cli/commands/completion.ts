import { Command } from "commander";
import { openProject } from "../../core/project/project.js";
import { rules } from "../../core/lint/rules/index.js";
import { defineCommand, type CommandSet } from "../command.js";
import { oneOf, withCommonOptions, type CommandContext } from "../context.js";
import { exitStatus, type ExitStatus } from "../exit.js";

const shells = ["bash", "zsh", "fish"] as const;

/** What each shell asks, and how: the program itself says which words can come next. */
const scripts: Readonly<Record<(typeof shells)[number], string>> = {
  bash: `_fond() {
  local IFS=$'\\n'
  COMPREPLY=($(fond completion --words "\${COMP_WORDS[@]:1:COMP_CWORD}" 2>/dev/null))
}
complete -o default -F _fond fond
`,
  zsh: `#compdef fond
_fond() {
  local -a found
  found=("\${(@f)$(fond completion --words "\${(@)words[2,CURRENT]}" 2>/dev/null)}")
  if [[ -n "$found" ]]; then compadd -- $found; else _files; fi
}
compdef _fond fond
`,
  fish: `function __fond_words
  set -l words (commandline -opc) (commandline -ct)
  fond completion --words $words[2..-1] 2>/dev/null
end
complete -c fond -a "(__fond_words)"
`,
};

/** Commands whose arguments are keys. */
const takesKeys = new Set(["list", "preview", "trace", "handoff", "draft", "review", "rekey"]);

/** Prints the script for a shell, or the words that can come next. */
export async function runCompletion(
  context: CommandContext,
  given: readonly string[],
  { words: asks }: { readonly words?: boolean },
  all: CommandSet,
): Promise<ExitStatus> {
  const [shell = "bash"] = given;
  if (!asks) {
    context.print(scripts[oneOf(...shells)(shell)]);
    return exitStatus.inOrder;
  }
  const found = await nextWords(context, given, all);
  if (found.length > 0) context.print(`${found.join("\n")}\n`);
  return exitStatus.inOrder;
}

/** The words that can stand in the place of the last one, which may be begun. */
export async function nextWords(
  context: CommandContext,
  words: readonly string[],
  { names, load }: CommandSet,
): Promise<readonly string[]> {
  const current = words.at(-1) ?? "";
  const begun = (all: readonly string[]) => all.filter((one) => one.startsWith(current)).slice(0, 500);
  const [name = ""] = words;
  if (words.length <= 1) return begun([...names, "help", "--help", "--version"]);
  const known = await load(name);
  if (!known) return [];
  const command = withCommonOptions(known.declare(new Command(name)), known.heeds);
  const options = command.options.flatMap((one) => (one.hidden ? [] : (one.long ?? [])));
  if (current.startsWith("-")) return begun([...options, "--help"]);
  const before = words.slice(1, -1).reverse();
  const asked = before.find((one) => one.startsWith("--"));
  const option = command.options.find(({ long }) => long !== undefined && long === asked);
  // An option that takes several words takes them until the next one.
  const isOpen = option && (option.variadic || ((option.required || option.optional) && before[0] === asked));
  if (isOpen) return begun(await valuesOf(context, asked ?? "", option.description));
  return takesKeys.has(name) || (name === "help" && words.length === 2)
    ? begun(name === "help" ? names : keysIn(context))
    : [];
}

async function valuesOf(
  context: CommandContext,
  option: string,
  description: string,
): Promise<readonly string[]> {
  const project = opened(context);
  switch (option) {
    case "--locale":
    case "--compare":
      return project ? [project.config.source, ...project.config.targets] : [];
    case "--book":
      return project?.config.books.map(({ name }) => name) ?? [];
    case "--rule":
    case "--explain":
      return rules.map(({ id }) => id);
    case "--service":
      return [...Object.keys(project?.config.services ?? {}), "stand-in"];
    default: {
      // The words that an option takes stand in what is said of it: `print the result as text, json, sarif`.
      const [, listed = ""] =
        /(?::| as |^write )\s?((?:[a-z][\w.-]*, )+[a-z][\w.-]*)/.exec(description) ?? [];
      return Promise.resolve(listed === "" ? [] : listed.split(", "));
    }
  }
}

function keysIn(context: CommandContext): readonly string[] {
  const project = opened(context);
  return (
    project?.config.books.flatMap((config) => {
      const book = project.book(config);
      return book
        .catalogsOf(book.sourceLocale)
        .flatMap(({ namespace, byKey }) => [...byKey.keys()].map((key) => book.codeKey(namespace, key)));
    }) ?? []
  );
}

/** The project, where it can be opened: what cannot be said completes nothing. */
function opened({ files, options }: CommandContext) {
  const result = openProject(files, options.config);
  return result.ok ? result.project : undefined;
}

/** `fond completion` */
export const completionCommand = defineCommand<{ readonly words?: boolean }>({
  name: "completion",
  summary: "Print a script that completes commands, options, locales, books, rules and keys in a shell",
  heeds: {},
  examples: [["completion bash", "add its output to ~/.bashrc"]],
  declare: (command) =>
    command
      .argument("[shell...]", `${shells.join(", ")}; with --words, the words so far`)
      .option("--words", "print the words that can come next")
      .passThroughOptions(),
  run: runCompletion,
});
