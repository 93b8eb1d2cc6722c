import type { Decision, Extracted } from "../../core/extract/extract.js";
import type { Waiver } from "../../core/config/waivers.js";
import { prepareWidths } from "../../core/text/width.js";
import type { CommandContext } from "../context.js";
import { lineReader } from "../context.js";
import { answerReader } from "../terminal/answers.js";
import { excerpt } from "../terminal/excerpt.js";

/** What came of a review: what to do with each text, and the texts that are accepted in code. */
export interface Reviewed {
  readonly decisions: ReadonlyMap<string, Decision>;
  readonly waivers: readonly Waiver[];
  /** Whether any text is to be taken. */
  readonly taken: number;
}

const help =
  "Enter accept · k key · m message · s skip · w waive · a accept all of this kind · A accept all · q quit";

/**
 * Walks through texts one by one and asks what to do with each. What was decided before stopping holds, the rest stays
 * in code and comes again next time.
 */
export async function reviewTexts(context: CommandContext, texts: readonly Extracted[]): Promise<Reviewed> {
  const { style, width, print } = context;
  await prepareWidths();
  const lineOf = lineReader(context);
  const answers = answerReader(context.io, print);
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
      const answer = await answers.ask(`${style.dim(help)}\n› `);
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
          key = (await answers.ask("  key: ")) || key;
          break;
        case "m":
          message = (await answers.ask("  message: ")) || message;
          break;
        case "w": {
          const reason = await answers.ask("  reason: ");
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
