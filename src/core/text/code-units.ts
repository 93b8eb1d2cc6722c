const isLittleEndian = new Uint8Array(new Uint16Array([1]).buffer)[0] === 1;

const hasBuffers = typeof Buffer !== "undefined";

/** What Node's buffers have beside `write`, which looks up the encoding first: that costs as much as a short text does. */
interface UnitBuffer extends Buffer<ArrayBuffer> {
  ucs2Write?(text: string): number;
}

/**
 * A place that one text after the other is put into as its UTF-16 code units: walking those takes half the time of asking
 * the text for each.
 */
export class CodeUnits {
  /** Node's own buffer, which takes a text in one step; a browser has none. */
  private bytes: UnitBuffer | undefined = undefined;
  private units = new Uint16Array(0);

  /** The units of a text, followed by two zeros. They stay right until the next call. */
  of(text: string): Uint16Array {
    const { length } = text;
    if (length + 2 > this.units.length) {
      // Short texts come in all lengths; a large file is rarely followed by a larger one.
      const room = length < 100_000 ? 2 * (length + 64) : length + 2;
      this.units = new Uint16Array(room);
      this.bytes = hasBuffers && isLittleEndian ? Buffer.from(this.units.buffer) : undefined;
    }
    const { units } = this;
    if (this.bytes?.ucs2Write) this.bytes.ucs2Write(text);
    else if (this.bytes) this.bytes.write(text, 0, "utf16le");
    else for (let at = 0; at < length; at++) units[at] = text.charCodeAt(at);
    units[length] = units[length + 1] = 0;
    return units;
  }
}
