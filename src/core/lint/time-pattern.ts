/** Whether a text is a pattern for dates or times, as `strftime` has them (POSIX): `%Y-%m-%d`, `%d. %B`. */
export function isTimePattern(text: string): boolean {
  const directives = text.match(/%[-_0^#]?[a-zA-Z]/g) ?? [];
  if (!directives.every((one) => /[aAbBcdDeFgGhHIjklLmMnNpPrRsSTuUVwWxXyYzZ+]$/.test(one))) return false;
  const rest = text.replace(/%[-_0^#]?[a-zA-Z]/g, "");
  return directives.length > 1 ? /%[-_0^#]?[YymBbHIMAaeF]/.test(text) : !/\p{L}/u.test(rest);
}
