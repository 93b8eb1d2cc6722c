/**
 * For each of some keys its index among those of a list as it was before; -1 for one that is new, or one that stood elsewhere alone.
 * Most follow each other as they did, so few are looked for.
 */
export function formerPlaces(now: readonly string[], before: readonly string[]): Int32Array {
  const places = new Int32Array(now.length).fill(-1);
  let known: Map<string, number> | undefined;
  let likely = 0;
  for (let at = 0; at < now.length; at++) {
    const key = now[at] ?? "";
    if (before[likely] !== key) {
      // One came, as after most changes.
      if (at + 1 < now.length && now[at + 1] === before[likely]) continue;
      known ??= new Map(before.map((one, index) => [one, index]));
      const place = known.get(key);
      if (place === undefined) continue;
      likely = place;
    }
    places[at] = likely++;
  }
  return places;
}
