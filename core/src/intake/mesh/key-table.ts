/** Whole numbers below 2^53 and the place of each: a hash table without objects, for millions of them. */
export class KeyTable {
  private keys: Float64Array;
  private values: Int32Array;
  private mask: number;
  size = 0;

  /** @param expected – about so many */
  constructor(expected: number) {
    const room = 2 ** Math.ceil(Math.log2(Math.max(16, expected * 2)));
    this.keys = new Float64Array(room).fill(-1);
    this.values = new Int32Array(room);
    this.mask = room - 1;
  }

  /** The place of a key: that of the first time, or the next free one. */
  place(key: number): number {
    let at = this.slot(key);
    if (this.keys[at] === key) return this.values[at]!;
    if (this.size * 2 > this.mask) {
      this.grow();
      at = this.slot(key);
    }
    this.keys[at] = key;
    this.values[at] = this.size;
    return this.size++;
  }
  /** −1 where it is not there. */
  find(key: number): number {
    const at = this.slot(key);
    return this.keys[at] === key ? this.values[at]! : -1;
  }

  private slot(key: number): number {
    const high = Math.floor(key / 4294967296),
      low = (key - high * 4294967296) | 0;
    let h = Math.imul(low ^ Math.imul(high, 0x9e3779b1), 0x85ebca6b);
    h = Math.imul(h ^ (h >>> 15), 0xc2b2ae35);
    let at = (h ^ (h >>> 13)) & this.mask;
    while (this.keys[at] !== -1 && this.keys[at] !== key) at = (at + 1) & this.mask;
    return at;
  }
  private grow(): void {
    const { keys, values } = this;
    const room = keys.length * 2;
    this.keys = new Float64Array(room).fill(-1);
    this.values = new Int32Array(room);
    this.mask = room - 1;
    keys.forEach((key, i) => {
      if (key < 0) return;
      const at = this.slot(key);
      this.keys[at] = key;
      this.values[at] = values[i]!;
    });
  }
}
