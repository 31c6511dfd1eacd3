/** Reads words and numbers of a text line by line, out of its bytes: texts of meshes are too long to be split into strings. */
export class Scanner {
  private at: number;
  /** Where the line that is read ends. */
  private end: number;

  constructor(
    private readonly bytes: Uint8Array,
    from = 0,
  ) {
    this.at = from;
    this.end = from;
  }

  /** The byte behind the line that was read. */
  get behind(): number {
    return Math.min(this.bytes.length, this.end + 1);
  }
  get done(): boolean {
    return this.end >= this.bytes.length;
  }

  /** Goes to the next line; false behind the last one. A backslash at its end goes on with the one after. */
  line(): boolean {
    const { bytes } = this;
    if (this.started && this.end >= bytes.length) return false;
    this.at = this.started ? this.end + 1 : this.at;
    this.started = true;
    let end = this.at;
    for (;;) {
      end = bytes.indexOf(10, end);
      if (end < 0) end = bytes.length;
      const last = bytes[end - 1] === 13 ? end - 2 : end - 1;
      if (end >= bytes.length || last < this.at || bytes[last] !== 92) break;
      end++;
    }
    this.end = end;
    return this.at < bytes.length;
  }
  private started = false;

  private blanks(): void {
    const { bytes, end } = this;
    while (this.at < end && (bytes[this.at]! <= 32 || bytes[this.at] === 92)) this.at++;
  }

  /** Whether something is left on the line. */
  more(): boolean {
    this.blanks();
    return this.at < this.end;
  }

  /** The next word of the line, '' at its end. */
  word(): string {
    this.blanks();
    const from = this.at;
    while (this.at < this.end && this.bytes[this.at]! > 32) this.at++;
    return text(this.bytes.subarray(from, this.at));
  }

  /** All that is left of the line. */
  rest(): string {
    this.blanks();
    const of = text(this.bytes.subarray(this.at, this.end)).trim();
    this.at = this.end;
    return of;
  }

  /** The next number of the line; NaN where there is none. */
  number(): number {
    this.blanks();
    return this.figure();
  }

  /** A whole number right here, and what follows it: `/` or something else. NaN where there is none. */
  index(): number {
    return this.figure();
  }
  /** Takes a byte that stands right here; false where it does not. */
  take(byte: number): boolean {
    if (this.at >= this.end || this.bytes[this.at] !== byte) return false;
    this.at++;
    return true;
  }
  /** Leaves the rest of a word. */
  skip(): void {
    while (this.at < this.end && this.bytes[this.at]! > 32) this.at++;
  }

  private figure(): number {
    const { bytes, end } = this;
    let at = this.at,
      sign = 1,
      digits = 0,
      value = 0,
      scale = 0;
    if (bytes[at] === 45 || bytes[at] === 43) sign = bytes[at++] === 45 ? -1 : 1;
    for (; at < end && bytes[at]! >= 48 && bytes[at]! <= 57; at++, digits++) value = value * 10 + bytes[at]! - 48;
    if (at < end && bytes[at] === 46)
      for (at++; at < end && bytes[at]! >= 48 && bytes[at]! <= 57; at++, digits++, scale--)
        value = value * 10 + bytes[at]! - 48;
    if (digits === 0) return NaN;
    if (at < end && (bytes[at]! | 32) === 101) {
      let e = 0,
        k = at + 1,
        minus = false;
      if (bytes[k] === 45 || bytes[k] === 43) minus = bytes[k++] === 45;
      const from = k;
      for (; k < end && bytes[k]! >= 48 && bytes[k]! <= 57; k++) e = Math.min(999, e * 10 + bytes[k]! - 48);
      if (k > from) {
        at = k;
        scale += minus ? -e : e;
      }
    }
    this.at = at;
    // A whole number of at most 53 bits and a power of ten up to 22 are exact, and so is the rounding of their ratio.
    if (scale < 0) return sign * (scale >= -22 ? value / 10 ** -scale : value * 10 ** scale);
    return sign * value * 10 ** scale;
  }
}

/** Bytes as text: names in these files are UTF-8, or at least show what can be shown. */
function text(bytes: Uint8Array): string {
  let plain = '';
  for (const b of bytes) {
    if (b > 127) return utf8(bytes);
    plain += String.fromCharCode(b);
  }
  return plain;
}
function utf8(bytes: Uint8Array): string {
  const escaped = [...bytes].map((b) => `%${b.toString(16).padStart(2, '0')}`).join('');
  try {
    return decodeURIComponent(escaped);
  } catch {
    return String.fromCharCode(...bytes);
  }
}
