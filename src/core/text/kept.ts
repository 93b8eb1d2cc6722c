/**
 * Gives what was made before under a name from the same things, or makes it now. Things are the same where they are one object
 * or equal texts or numbers; what is made must hang on them alone.
 */
export type Keep = <Made>(
  name: string,
  from: readonly unknown[],
  /** Gets what was made last under the name, of whatever things. */
  make: (before: Made | undefined) => Made,
) => Made;

/** Keeps nothing: for a run that looks once. */
export const makeAnew: Keep = (_name, _from, make) => make(undefined);

/** Keeps what was made last under each name, for a project that is looked at again and again. */
export function keeper(): Keep {
  const kept = new Map<string, { readonly from: readonly unknown[]; readonly made: unknown }>();
  return <Made>(name: string, from: readonly unknown[], make: (before: Made | undefined) => Made): Made => {
    const there = kept.get(name);
    if (there && there.from.length === from.length && there.from.every((one, at) => Object.is(one, from[at])))
      return there.made as Made;
    const made = make(there?.made as Made | undefined);
    kept.set(name, { from, made });
    return made;
  };
}
