import { hash32 } from '../math';

/**
 * The chances of one sample of one pixel: they follow from both numbers alone, so that a picture is the same however its
 * pixels and samples are shared. Xorshift (Marsaglia 2003), begun by hashing.
 */
export class Sampler {
  private state = 1;

  begin(pixel: number, sample: number): void {
    this.state = hash32(hash32(pixel + 0x632be5ab) ^ Math.imul(sample + 1, 0x9e3779b1)) || 1;
  }

  /** 0 to below 1. */
  next(): number {
    let s = this.state;
    s ^= s << 13;
    s ^= s >>> 17;
    s ^= s << 5;
    this.state = s;
    return (s >>> 0) / 4294967296;
  }
}
