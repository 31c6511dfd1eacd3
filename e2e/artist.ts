import { expect } from '@playwright/test';
import { Bench, type Triple } from './bench';

/** Where a pointer goes: a cell of the part and the face that is meant. */
export type Spot = readonly [cell: Triple, face: Triple];
export const floor = (x: number, z: number): Spot => [
  [x, -1, z],
  [0, 1, 0],
];
export const top = (x: number, y: number, z: number): Spot => [
  [x, y, z],
  [0, 1, 0],
];

/** The middle of a cell, where a guide plane runs through it. */
export const plane = (x: number, y: number, z: number): Spot => [
  [x, y, z],
  [0, 0, 0],
];

/** Cells that were meant, written down the plain way: later ones win, 0 clears. */
export class Meant {
  private readonly cells = new Map<string, number>();
  set(x: number, y: number, z: number, v: number): this {
    this.cells.set([x, y, z].join(), v);
    return this;
  }
  get(x: number, y: number, z: number): number {
    return this.cells.get([x, y, z].join()) ?? 0;
  }
  box(v: number, min: Triple, size: Triple, where: (x: number, y: number, z: number) => boolean = () => true): this {
    for (let z = min[2]; z < min[2] + size[2]; z++)
      for (let y = min[1]; y < min[1] + size[1]; y++)
        for (let x = min[0]; x < min[0] + size[0]; x++) if (where(x, y, z)) this.set(x, y, z, v);
    return this;
  }
  get count(): number {
    return [...this.cells.values()].filter((v) => v !== 0).length;
  }
}

/** A hand that builds: cards, swatches, drags and typed numbers, all through the interface. */
export class Artist extends Bench {
  /** A card from the strip, or from those that lie ready to be added. */
  async take(name: string): Promise<void> {
    const card = this.page
      .getByRole('radiogroup', { name: 'Tool in hand' })
      .getByRole('radio', { name: new RegExp(`${name}$`) });
    if ((await card.count()) > 0) await card.first().click();
    else {
      await this.page.getByRole('button', { name: 'Add a tool' }).click();
      await this.page.getByRole('menuitem', { name, exact: true }).click();
    }
    await this.idle();
  }
  async number(label: string, value: number, calm = true): Promise<void> {
    const field = this.page.getByLabel(label, { exact: true });
    await field.fill(String(value));
    await field.press('Enter');
    if (calm) await this.idle();
  }
  spot = (s: Spot, part = 'Body'): Promise<{ x: number; y: number }> => this.face(part, s[0], s[1]);

  /** Footprint from one place to another by the pointer, then sizes typed where given, then set. */
  async solid(
    from: Spot,
    to: Spot,
    typed: Partial<Record<'width' | 'height' | 'depth' | 'X' | 'Y' | 'Z', number>> = {},
  ): Promise<void> {
    const [a, b] = [await this.spot(from), await this.spot(to)];
    await this.page.mouse.move(a.x, a.y);
    await this.page.mouse.down();
    await this.page.mouse.move(b.x, b.y, { steps: 4 });
    await this.page.mouse.up();
    for (const [k, v] of Object.entries(typed)) await this.number(`Shape ${k}`, v, false);
    await this.page.getByRole('button', { name: 'Set it' }).click();
    await this.idle();
  }
  /** A shape by numbers alone. */
  async byNumbers(size: Triple, min: Triple): Promise<void> {
    await this.page.getByRole('button', { name: 'by numbers' }).click();
    for (const [i, k] of (['width', 'height', 'depth'] as const).entries())
      await this.number(`Shape ${k}`, size[i]!, false);
    for (const [i, k] of (['X', 'Y', 'Z'] as const).entries()) await this.number(`Shape ${k}`, min[i]!, false);
    await this.page.getByRole('button', { name: 'Set it' }).click();
    await this.idle();
  }
  /** Where something stands on the page, whether or not something else is before it. */
  hint = (what: { part: string; cell: Triple; face: Triple }): Promise<{ x: number; y: number }> =>
    this.page.evaluate((w) => window.sphalerite.screenOf(w), what);
  /** The box around all cubes of a part. */
  async content(part = 'Body'): Promise<{ min: Triple; size: Triple }> {
    const { min, size } = (await this.project()).parts.find((p) => p.name === part)!.bounds;
    const cells = await this.cells(part, min, size);
    const lo = [Infinity, Infinity, Infinity],
      hi = [-Infinity, -Infinity, -Infinity];
    cells.forEach((v, i) => {
      if (v === 0) return;
      const at = [i % size[0], Math.floor(i / size[0]) % size[1], Math.floor(i / (size[0] * size[1]))];
      at.forEach((c, a) => {
        lo[a] = Math.min(lo[a]!, c + min[a]!);
        hi[a] = Math.max(hi[a]!, c + min[a]!);
      });
    });
    return { min: lo as unknown as Triple, size: lo.map((v, a) => hi[a]! - v + 1) as unknown as Triple };
  }
  async stroke(from: Spot, to: Spot): Promise<void> {
    await this.drag(await this.spot(from), await this.spot(to), 5);
  }
  async tap(s: Spot): Promise<void> {
    await this.click(await this.spot(s));
  }
  /** Says what differs, cell by cell, when anything does. */
  async compare(meant: Meant, min: Triple, size: Triple, part = 'Body'): Promise<void> {
    const is = await this.cells(part, min, size);
    const wrong: string[] = [];
    let i = 0;
    for (let z = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++)
        for (let x = 0; x < size[0]; x++, i++) {
          const want = meant.get(x + min[0], y + min[1], z + min[2]);
          if (is[i] !== want && wrong.length < 12)
            wrong.push(`${x + min[0]},${y + min[1]},${z + min[2]}: is ${is[i]}, meant ${want}`);
        }
    expect(wrong).toEqual([]);
    expect(is.filter((v) => v !== 0).length).toBe(meant.count);
  }
}

/** Whether a cell of a box lies in the ellipse (or ellipsoid) that fills it, by its centre. */
export const inRound =
  (min: Triple, size: Triple, axes: readonly number[]) =>
  (...c: number[]): boolean =>
    axes.reduce((s, a) => s + ((2 * (c[a]! - min[a]!) + 1 - size[a]!) / size[a]!) ** 2, 0) <= 1 + 1e-9;
