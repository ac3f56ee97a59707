const SPACE = 0x20;
const LINE = 0x0a;
const RETURN = 0x0d;
const TAB = 0x09;
const HASH = 0x23;
const BACKSLASH = 0x5c;
const MINUS = 0x2d;
const PLUS = 0x2b;
const POINT = 0x2e;
const TENS = Array.from({ length: 16 }, (_, i) => 10 ** i);
/** Characters of a word that are read; all meaningful numbers and names are shorter. */
const LONGEST = 256;

/**
 * Reads words from the bytes of a text file one by one, without building a string or list first, so that memory stays
 * bounded whatever the file's size.
 */
export class Words {
  private at = 0;
  private begun = false;
  /** Line number, from 1. */
  line = 1;
  constructor(
    private readonly bytes: Uint8Array,
    /** Whether `#` begins a comment and a backslash continues a line. */
    private readonly objLike = false,
  ) {}

  private skipSpaces(): void {
    const { bytes } = this;
    for (; this.at < bytes.length; this.at++) {
      const c = bytes[this.at];
      if (c === SPACE || c === TAB || c === RETURN) continue;
      if (!this.objLike) return;
      if (c === HASH) {
        const end = bytes.indexOf(LINE, this.at);
        this.at = end < 0 ? bytes.length : end;
        return;
      }
      const next = bytes[this.at + 1] === RETURN ? this.at + 2 : this.at + 1;
      if (c !== BACKSLASH || bytes[next] !== LINE) return;
      this.at = next;
      this.line++;
    }
  }

  private endsWord(c: number): boolean {
    return c === SPACE || c === LINE || c === TAB || c === RETURN || (this.objLike && c === HASH);
  }

  /** The next word of this line; empty at its end. */
  word(): string {
    this.skipSpaces();
    const { bytes } = this;
    const from = this.at;
    let text = '';
    for (; this.at < bytes.length && !this.endsWord(bytes[this.at]); this.at++)
      if (this.at < from + LONGEST) text += String.fromCharCode(bytes[this.at]);
    return text;
  }

  /**
   * The next word of this line as a number; NaN if it is none or missing. A decimal number of up to fifteen digits with
   * a small power of ten is one exact integer divided or multiplied by another, so it is rounded once, as `Number`
   * rounds it (W. D. Clinger, How to Read Floating Point Numbers Accurately, 1990).
   */
  number(): number {
    this.skipSpaces();
    const { bytes } = this;
    const from = this.at;
    let at = from;
    const negative = bytes[at] === MINUS;
    if (negative || bytes[at] === PLUS) at++;
    let [whole, digits, tens] = [0, 0, 0];
    for (let point = false; at < bytes.length; at++) {
      const c = bytes[at];
      if (c >= 0x30 && c <= 0x39) {
        whole = 10 * whole + (c - 0x30);
        digits++;
        if (point) tens++;
      } else if (c === POINT && !point) point = true;
      else break;
    }
    if (digits === 0 || digits > 15 || (at < bytes.length && !this.endsWord(bytes[at]))) {
      const text = this.word();
      return text === '' ? NaN : Number(text);
    }
    this.at = at;
    const value = whole / TENS[tens];
    return negative ? -value : value;
  }

  /** Moves to the next line that is not blank; false at the end of the file. */
  next(): boolean {
    const { bytes } = this;
    if (this.begun) {
      const end = bytes.indexOf(LINE, this.at);
      this.at = end < 0 ? bytes.length : end;
    }
    this.begun = true;
    while (this.at < bytes.length) {
      const c = bytes[this.at];
      if (c === LINE) this.line++;
      else if (c !== SPACE && c !== TAB && c !== RETURN) return true;
      this.at++;
    }
    return false;
  }

  /** The next word of this or any later line; empty at the end of the file. */
  wordAnywhere(): string {
    const word = this.word();
    if (word !== '' || !this.next()) return word;
    return this.word();
  }
}
