/** Whether a script takes modules in by `require()`, or gives itself as one that is taken in so (CommonJS). */
export function isCommonModule(text: string): boolean {
  return /\brequire\(\s{0,9}["'`]|\bmodule\.exports\b|^exports\.\w/m.test(text);
}
