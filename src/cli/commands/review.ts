import type { Decision, Extracted } from "../../core/extract/extract.js";
import type { Waiver } from "../../core/config/waivers.js";
import { prepareWidths } from "../../core/text/width.js";
import type { CommandContext } from "../context.js";
import { lineReader } from "../context.js";
import { answersFor, type Choice } from "../terminal/answers.js";
import { excerpt } from "../terminal/excerpt.js";

/** What came of a review: what to do with each text, and the texts that are accepted in code. */
export interface Reviewed {
  readonly decisions: ReadonlyMap<string, Decision>;
  readonly waivers: readonly Waiver[];
  /** Whether any text is to be taken. */
  readonly taken: number;
}

const choices: readonly Choice[] = [
  { key: "t", label: "accept" },
  { key: "k", label: "another key" },
  { key: "m", label: "another message" },
  { key: "s", label: "skip" },
  { key: "w", label: "waive" },
  { key: "a", label: "accept all of this kind" },
  { key: "A", label: "accept all" },
  { key: "q", label: "quit" },
];

/**
 * Walks through texts one by one and asks what to do with each. What was decided before stopping holds, the rest stays
 * in code and comes again next time.
 */
export async function reviewTexts(context: CommandContext, texts: readonly Extracted[]): Promise<Reviewed> {
  const { style, width, print } = context;
  await prepareWidths();
  const lineOf = lineReader(context);
  const answers = await answersFor(context.io, print, !context.hasColor);
  const decisions = new Map<string, Decision>();
  const waivers: Waiver[] = [];
  const kinds = new Set<string>();
  let takesAll = false;
  let stopped = false;
  let taken = 0;
  for (const [index, one] of texts.entries()) {
    const place = `${one.file}:${one.line}:${one.column}`;
    if (stopped) {
      decisions.set(place, { skip: true });
      continue;
    }
    if (takesAll || kinds.has(one.role)) {
      taken++;
      continue;
    }
    let { key, message } = one;
    for (let isOpen = true; isOpen;) {
      print(
        `\n${style.inverse(` ${index + 1}/${texts.length} `)} ${style.bold(place)} ${style.dim(one.reason)}\n`,
      );
      for (const line of excerpt(lineOf(one.file, one.line), one, width, style, style.cyan))
        print(`${line}\n`);
      print(`  ${style.green(key)}\n  ${message}\n`);
      const answer = await answers.choose("Extract it?", choices);
      switch (answer) {
        case undefined:
        case "q":
          decisions.set(place, { skip: true });
          stopped = true;
          isOpen = false;
          break;
        case "":
        case "t":
          taken++;
          isOpen = false;
          break;
        case "a":
          kinds.add(one.role);
          taken++;
          isOpen = false;
          break;
        case "A":
          takesAll = true;
          taken++;
          isOpen = false;
          break;
        case "s":
          decisions.set(place, { skip: true });
          isOpen = false;
          break;
        case "k":
          key = (await answers.ask("Key:", { initial: key })) || key;
          break;
        case "m":
          message = (await answers.ask("Message:", { initial: message })) || message;
          break;
        case "w": {
          const reason = await answers.ask("Reason:");
          if (!reason) {
            print(`  ${style.yellow("missing reason")}\n`);
            break;
          }
          waivers.push({ literal: one.text, file: one.file, reason });
          decisions.set(place, { skip: true });
          isOpen = false;
          break;
        }
        default:
          print(`  ${style.yellow(`unknown answer "${answer}"`)}\n`);
      }
    }
    if (decisions.get(place)?.skip === undefined && (key !== one.key || message !== one.message))
      decisions.set(place, { ...(key !== one.key && { key }), ...(message !== one.message && { message }) });
  }
  answers.close();
  return { decisions, waivers, taken };
}
