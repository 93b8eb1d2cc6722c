import { relative, resolve } from "node:path";
import type { Config } from "../../core/config/schema.js";
import type { HandoffEntry } from "../../core/exchange/handoff.js";
import type { TranslationService } from "../../core/exchange/service.js";
import { notices } from "../../core/message/notices.js";
import {
  draftByService,
  draftsFor,
  serviceSize,
  takeDrafts,
  type Drafted,
} from "../../core/project/draft.js";
import { PlanChain } from "../../core/project/plan-chain.js";
import { nearest } from "../../core/text/nearest.js";
import { documentAt } from "../../disk/document.js";
import { reasonOf } from "../../disk/disk-files.js";
import { httpService, ServiceError } from "../../services/http.js";
import { standIn } from "../../services/stand-in.js";
import { defineCommand } from "../command.js";
import {
  openOrFail,
  settlePlan,
  wholeNumber,
  withWriteOptions,
  type CommandContext,
  type WriteOptions,
} from "../context.js";
import { CommandError, exitStatus, usageError, type ExitStatus } from "../exit.js";
import { showProgress } from "../terminal/progress.js";
import { counted, type Style } from "../terminal/style.js";
import { today } from "../today.js";

const say = notices("cli/draft", {
  "no-memory": { message: "{file} cannot be read: {detail}", remedy: "give translation memories in TMX 1.4" },
  "misspelled-service": { message: 'unknown service "{name}"', remedy: 'did you mean "{meant}"?' },
  "unknown-service": {
    message: 'unknown service "{name}"',
    remedy: 'name one under "services" in the configuration; "stand-in" needs none',
  },
  "no-key": { message: "{variable} is not set", remedy: "set it to the key of the service" },
  "too-much": {
    message: "{characters, plural, one {# character} other {# characters}} to translate; the limit is {most}",
    remedy: 'narrow the run by --locale, --book or keys, or raise "mostCharacters" of the service',
  },
  failed: { message: "{name}: {detail}", remedy: "nothing was written; try again later" },
});

export interface DraftCommandOptions extends WriteOptions {
  readonly memory?: readonly string[];
  readonly service?: string;
  readonly likeness?: number;
  readonly stale?: boolean;
}

/** Fills what is not translated with suggestions, which a person still has to confirm. */
export async function runDraft(
  context: CommandContext,
  keys: readonly string[],
  options: DraftCommandOptions,
): Promise<ExitStatus> {
  const first = openOrFail(context);
  const { config } = first;
  const service = options.service === undefined ? undefined : serviceNamed(context, config, options.service);
  const chain = new PlanChain(first);
  const drafted: Drafted[] = [];
  const left: { readonly locale: string; readonly entries: readonly HandoffEntry[] }[] = [];
  const memories = (options.memory ?? []).map((path) => ({
    name: relative(context.io.cwd, resolve(context.io.cwd, path)).replaceAll("\\", "/"),
    chunks: () => readOrFail(context, path),
  }));
  const day = today();
  const books = context.options.book ? { books: context.options.book } : {};
  for (const locale of config.targets) {
    if (context.options.locale && !context.options.locale.includes(locale)) continue;
    const found = await draftsFor(chain.project, books, locale, {
      today: day,
      likeness: (options.likeness ?? 80) / 100,
      memories,
      ...(keys.length > 0 && { keys }),
      ...(options.stale && { stale: true }),
    });
    if (!found.ok)
      throw new CommandError(
        say("no-memory", { file: found.file, detail: found.message }),
        exitStatus.trouble,
      );
    const taken = await takeDrafts(chain.project, books, found, {
      today: day,
      origin: "memory",
      file: "memory",
    });
    if (taken.ok) chain.add(taken.plan);
    drafted.push(...found.drafted);
    if (found.left.length > 0) left.push({ locale, entries: found.left });
  }
  const { style } = context;
  const lines = drafted.map((one) => shownDraft(style, one));
  const size = serviceSize(left.flatMap(({ entries }) => entries));
  if (service && size.texts > 0) {
    if (size.characters > service.most)
      throw usageError(say("too-much", { characters: size.characters, most: service.most }));
    const amount = `${counted(size.texts, "text")}, ${counted(size.characters, "character")}`;
    if (options.write) await askAll(context, chain, left, books, service, day);
    else lines.push(`${amount} would go to ${service.name}; --write sends them.`);
  } else if (size.texts > 0)
    lines.push(style.dim(`Nothing is remembered for ${counted(size.texts, "other text")}.`));
  return settlePlan(context, "draft", chain.plan(), options, {
    head: lines.length > 0 ? `${lines.join("\n")}\n\n` : "",
  });
}

async function askAll(
  context: CommandContext,
  chain: PlanChain,
  left: readonly { readonly locale: string; readonly entries: readonly HandoffEntry[] }[],
  scope: object,
  { name, service, perRequest }: NamedService,
  day: string,
): Promise<void> {
  const progress = showProgress(`Translating by ${name}`, context.options.quiet ?? false, context.io);
  try {
    for (const { locale, entries } of left) {
      const drafts = await draftByService(entries, {
        source: chain.project.config.source,
        locale,
        service,
        perRequest,
        progress: (done, of) => {
          progress.step(done, of);
        },
      });
      const taken = await takeDrafts(chain.project, scope, drafts, {
        today: day,
        origin: "service",
        file: name,
      });
      if (taken.ok) chain.add(taken.plan);
      if (drafts.left.length > 0)
        context.say(
          `${locale}: ${counted(drafts.left.length, "text")} came back without all of their codes, or not at all, and are left.`,
        );
    }
  } catch (error) {
    if (error instanceof ServiceError)
      throw new CommandError(say("failed", { name, detail: error.message }), exitStatus.trouble);
    throw error;
  } finally {
    progress.end();
  }
}

function shownDraft(style: Style, { locale, key, form, from, text, near }: Drafted): string {
  const place = `${style.cyan(locale)} ${style.bold(key)}${form === "" ? "" : ` ${style.dim(form)}`}`;
  const share = near ? `${Math.floor(near.likeness * 100)} % like ${from}` : `same as ${from}`;
  const difference = near ? `\n    ${style.dim(near.difference)}` : "";
  return `${place}  ${style.dim(share)}\n    ${text}${difference}`;
}

interface NamedService {
  readonly name: string;
  readonly service: TranslationService;
  readonly perRequest: number;
  readonly most: number;
}

function serviceNamed(
  { io: { env } }: CommandContext,
  { services = {} }: Config,
  name: string,
): NamedService {
  const own = Object.hasOwn(services, name) ? services[name] : undefined;
  if (!own) {
    if (name === "stand-in") return { name, service: standIn, perRequest: 50, most: Infinity };
    const near = nearest(name, [...Object.keys(services), "stand-in"]);
    throw usageError(
      near === undefined
        ? say("unknown-service", { name })
        : say("misspelled-service", { name, meant: near }),
    );
  }
  const key = own.keyFrom === undefined ? undefined : env[own.keyFrom];
  if (own.keyFrom !== undefined && !key) throw usageError(say("no-key", { variable: own.keyFrom }));
  const { url, perMinute, timeout, perRequest, mostCharacters } = own;
  return { name, service: httpService({ url, key, perMinute, timeout }), perRequest, most: mostCharacters };
}

function* readOrFail({ io }: CommandContext, path: string): Iterable<string> {
  try {
    yield* documentAt(resolve(io.cwd, path)).chunks();
  } catch (error) {
    throw new CommandError(say("no-memory", { file: path, detail: reasonOf(error) }), exitStatus.trouble);
  }
}

/** `fond draft` */
export const draftCommand = defineCommand<DraftCommandOptions>({
  name: "draft",
  summary: "Fill what is not translated with suggestions: from your own translations, memories, or a service",
  heeds: { json: true, books: true, locales: true },
  examples: [
    ["draft --likeness 60", "what your own translations suggest"],
    ["draft --service stand-in --locale pl", "how much would go to a service"],
  ],
  declare: (command) =>
    withWriteOptions(command)
      .argument("[keys...]", "only these keys or patterns (* and **); default: all that is not translated")
      .option("--memory <files...>", "also look in these translation memories (TMX 1.4)")
      .option(
        "--service <name>",
        "have a service of the configuration translate the rest; stand-in needs no network",
      )
      .option(
        "--likeness <percent>",
        "how much alike texts have to be; 100: only the same text",
        wholeNumber,
        80,
      )
      .option("--stale", "replace stale translations if the very same text is remembered"),
  run: runDraft,
});
