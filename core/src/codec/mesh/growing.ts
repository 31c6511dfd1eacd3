/** A list of numbers that grows: as an array of numbers, at half the room. */
export class Growing {
  private of = new Float64Array(1024);
  length = 0;

  push3(a: number, b: number, c: number): void {
    if (this.length + 3 > this.of.length) {
      const wider = new Float64Array(this.of.length * 2);
      wider.set(this.of);
      this.of = wider;
    }
    this.of[this.length++] = a;
    this.of[this.length++] = b;
    this.of[this.length++] = c;
  }
  at(i: number): number {
    return this.of[i]!;
  }
  some(is: (value: number) => boolean): boolean {
    for (let i = 0; i < this.length; i++) if (is(this.of[i]!)) return true;
    return false;
  }
  /** A copy. */
  all(): Float64Array {
    return this.of.slice(0, this.length);
  }
}
