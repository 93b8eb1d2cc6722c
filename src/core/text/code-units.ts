/** The place that the units of one text after the other are put into: its bytes, and the same as numbers of two bytes each. */
let bytes = Buffer.alloc(2 << 17);
let units = new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2);
const isLittleEndian = new Uint8Array(new Uint16Array([1]).buffer)[0] === 1;

/**
 * The UTF-16 code units of a text, followed by zeros: walking them takes half the time of asking the text for each. They
 * stay right only until the next call.
 */
export function codeUnits(text: string): Uint16Array {
  const { length } = text;
  if (length + 2 > units.length) {
    bytes = Buffer.alloc(4 * (length + 2));
    units = new Uint16Array(bytes.buffer, bytes.byteOffset, bytes.length / 2);
  }
  if (isLittleEndian) bytes.write(text, 0, "utf16le");
  else for (let at = 0; at < length; at++) units[at] = text.charCodeAt(at);
  units[length] = units[length + 1] = 0;
  return units;
}
