/** What makes something once, when it is first asked for: packages that few runs need are loaded this way. */
export function lazily<T>(make: () => T): () => T {
  let made: { readonly value: T } | undefined;
  return () => (made ??= { value: make() }).value;
}
