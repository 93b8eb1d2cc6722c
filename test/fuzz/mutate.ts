/** Pseudo-random numbers from 0 to 1 that a seed decides (mulberry32). */
export function randomFrom(seed: number): () => number {
  let state = seed >>> 0;
  return () => {
    state = (state + 0x6d2b79f5) >>> 0;
    let mixed = Math.imul(state ^ (state >>> 15), state | 1);
    mixed ^= mixed + Math.imul(mixed ^ (mixed >>> 7), mixed | 61);
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4_294_967_296;
  };
}

/** Longer texts are cut, in UTF-16 code units: what is slow per character shows in these. */
const longest = 40_000;

/** A text made from samples and tokens by a few random changes; the same for the same seed. */
export function mutated(seed: number, samples: readonly string[], tokens: readonly string[]): string {
  const random = randomFrom(seed);
  const upTo = (limit: number) => Math.floor(random() * limit);
  const pick = <Item>(list: readonly Item[], none: Item) => list[upTo(list.length)] ?? none;
  let text = pick(samples, "");
  const span = () => {
    const start = upTo(text.length + 1);
    return [start, Math.min(text.length, start + upTo(random() < 0.2 ? text.length + 1 : 24))] as const;
  };
  for (let changes = 1 + upTo(6); changes > 0; changes--) {
    const [start, end] = span();
    const [head, part, tail] = [text.slice(0, start), text.slice(start, end), text.slice(end)];
    const token = pick(tokens, "x");
    switch (upTo(9)) {
      case 0:
        text = head + tail;
        break;
      case 1:
        text = head + token + part + tail;
        break;
      case 2:
        text = head + token + tail;
        break;
      case 3:
        text = head + part + part + tail;
        break;
      case 4: {
        const other = pick(samples, "");
        const from = upTo(other.length + 1);
        text = head + other.slice(from, from + upTo(400)) + tail;
        break;
      }
      case 5:
        text = head;
        break;
      case 6:
        // One piece again and again: what is read in more than linear time takes seconds then.
        text =
          head +
          (random() < 0.5 ? token : part || token).repeat(1 + upTo(random() < 0.3 ? 4_000 : 12)) +
          tail;
        break;
      case 7:
        text = head + String.fromCharCode(upTo(random() < 0.7 ? 0x180 : 0x10000)) + part + tail;
        break;
      default:
        text = head + token + pick(tokens, "x") + pick(tokens, "x") + part + tail;
    }
    if (text.length > longest) text = text.slice(0, longest);
  }
  return text;
}
