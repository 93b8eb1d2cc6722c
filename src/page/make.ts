/** An element with properties and what is in it. Strings become text, never markup. */
export function make<Name extends keyof HTMLElementTagNameMap>(
  name: Name,
  properties: Partial<HTMLElementTagNameMap[Name]> = {},
  ...children: readonly (Node | string)[]
): HTMLElementTagNameMap[Name] {
  const element = Object.assign(document.createElement(name), properties);
  element.append(...children);
  return element;
}
