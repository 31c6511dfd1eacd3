import type { Extent } from '../math';
import { type DrawInstance, type DrawList, instanceExtent } from './draw-list';

/** Most columns that something wide is entered in. */
const MOST = 4096;

/** What stands in a list by where it stands on the ground, so that its neighbours are found without asking all. */
export class Columns {
  private readonly columns = new Map<string, DrawInstance[]>();
  /** What is too wide to be entered everywhere it stands. */
  private readonly wide: DrawInstance[] = [];
  private readonly edge: number;

  constructor(list: DrawList) {
    let sum = 0,
      n = 0;
    for (const i of list) {
      const e = instanceExtent(i);
      if (e) [sum, n] = [sum + Math.max(e.hi[0] - e.lo[0], e.hi[2] - e.lo[2]), n + 1];
    }
    this.edge = Math.max(1e-3, n > 0 ? sum / n : 1);
    for (const i of list) {
      const e = instanceExtent(i);
      if (!e) continue;
      const keys = this.keysOf(e);
      if (!keys) this.wide.push(i);
      for (const key of keys ?? []) {
        const known = this.columns.get(key);
        if (known) known.push(i);
        else this.columns.set(key, [i]);
      }
    }
  }

  /** All whose boxes may stand over or under a box, each once. */
  around(e: Extent): Iterable<DrawInstance> {
    const found = new Set(this.wide);
    const keys = this.keysOf(e);
    for (const key of keys ?? this.columns.keys()) for (const i of this.columns.get(key) ?? []) found.add(i);
    return found;
  }

  private keysOf({ lo, hi }: Extent): string[] | null {
    const [x0, x1, z0, z1] = [lo[0], hi[0], lo[2], hi[2]].map((v) => Math.floor(v / this.edge)) as [
      number,
      number,
      number,
      number,
    ];
    if ((x1 - x0 + 1) * (z1 - z0 + 1) > MOST) return null;
    const out: string[] = [];
    for (let x = x0; x <= x1; x++) for (let z = z0; z <= z1; z++) out.push(`${x} ${z}`);
    return out;
  }
}
