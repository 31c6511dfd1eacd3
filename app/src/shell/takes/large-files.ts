import { type PngStrip, exrHead, pngEnd, pngHead } from '@sphalerite/core/codec';
import { fileName } from '@sphalerite/core/files';
import type { Shot } from '@sphalerite/core/model';
import { type Area, type Coarse, type LightTile, isDrawn, rowsAbout } from '@sphalerite/core/render';
import { type PiecePlan, coveredArea, joinedSquares } from '@sphalerite/core/takes';
import type { Layer } from '../../workers/jobs';
import { sharedPool } from '../../workers/pool';
import type { Handed } from '../files/exporting';
import type { KeptTake } from './kept';
import { onAllLanes } from './large';

/** Pixels that are developed at a time. */
const STRIP = 2 ** 20;
const PASSES = ['light', 'albedo', 'normal', 'depth', 'id'] as const;

/** Rows of a picture, and the finished pieces that count for them. */
interface Strip {
  readonly rows: readonly [number, number];
  readonly tiles: LightTile[];
  readonly index: number;
}

/** Writes the pieces of a large picture as the file that its shot becomes, strip by strip: nowhere is all of it in memory. */
export class LargeWriter {
  constructor(
    private readonly title: string,
    private readonly shot: Shot,
    private readonly plan: PiecePlan,
    private readonly kept: KeptTake,
    private readonly signal: AbortSignal,
  ) {}

  /** @throws JobCancelled when it is stopped */
  async files(): Promise<Handed[]> {
    const { file, size } = this.shot.output,
      name = fileName(this.title);
    if (file === 'exr') return this.layers(name);
    const spread = this.shot.grade.bloom > 0 ? await this.spread() : null;
    const [width, height] = size;
    if (file === 'png' || file === 'png16') {
      const area = await this.area(),
        strips: PngStrip[] = [],
        parts: Blob[] = [];
      await this.strips(area, async (strip) => {
        const { bytes, ...sums } = await this.developed(strip, spread, area, file);
        parts[strip.index] = new Blob([bytes]);
        strips[strip.index] = { ...sums, bytes: new Uint8Array() };
      });
      const head = pngHead(area.width, area.height, file === 'png' ? 8 : 16);
      return [{ name: `${name}.png`, bytes: new Blob([head, ...parts, pngEnd(strips)], { type: 'image/png' }) }];
    }
    const whole = { x: 0, y: 0, width, height },
      parts: Blob[] = [];
    await this.strips(whole, async (strip) => {
      parts[strip.index] = new Blob([(await this.developed(strip, spread, whole, 'rgba')).bytes]);
    });
    const pixels = new Blob(parts),
      type = file === 'jpeg' ? 'image/jpeg' : 'image/webp';
    const bytes = await sharedPool().run('written', () => ({ pixels, width, height, type }), { signal: this.signal });
    return [{ name: `${name}.${file === 'jpeg' ? 'jpg' : 'webp'}`, bytes }];
  }

  private developed(
    { rows, tiles, index }: Strip,
    spread: Coarse | null,
    area: Area,
    as: 'png' | 'png16' | 'rgba',
  ): Promise<PngStrip> {
    const { size, transparent, file } = this.shot.output,
      [width, height] = size;
    const input = {
      ...{ film: { width, height, tiles }, grade: this.grade, rows, spread, as },
      transparent: transparent && file !== 'jpeg',
      columns: [area.x, area.x + area.width] as const,
      place: { first: index === 0, last: rows[1] === area.y + area.height },
    };
    return sharedPool().run('strip', () => input, { signal: this.signal });
  }
  private get grade(): Shot['grade'] {
    return JSON.parse(JSON.stringify(this.shot.grade)) as Shot['grade'];
  }

  private async layers(name: string): Promise<Handed[]> {
    const { size, passes, transparent } = this.shot.output,
      [width, height] = size;
    const layers: readonly Layer[] = passes ? PASSES : ['light'],
      parts = layers.map((): Blob[] => []);
    await this.strips({ x: 0, y: 0, width, height }, async ({ rows, tiles, index }) => {
      const input = { film: { width, height, tiles }, transparent, rows, layers };
      const made = await sharedPool().run('layers', () => input, { signal: this.signal });
      made.forEach((bytes, i) => (parts[i]![index] = new Blob([bytes])));
    });
    return layers.map((layer, i) => ({
      name: layer === 'light' ? `${name}.exr` : `${name}.${layer}.exr`,
      bytes: new Blob([exrHead(width, height), ...parts[i]!]),
    }));
  }

  /** What of the picture is written: all of it, or what is covered. */
  private async area(): Promise<Area> {
    const { size, cut, transparent, file } = this.shot.output,
      [width, height] = size,
      found: Area[] = [];
    if (cut && transparent && file === 'png')
      for (const i of this.plan.pieces.keys()) {
        const area = coveredArea([(await this.kept.pieces.get(i))!.piece]);
        if (area) found.push(area);
      }
    if (found.length === 0) return { x: 0, y: 0, width, height };
    const [x, y] = [Math.min(...found.map((a) => a.x)), Math.min(...found.map((a) => a.y))];
    return {
      ...{ x, y, width: Math.max(...found.map((a) => a.x + a.width)) - x },
      height: Math.max(...found.map((a) => a.y + a.height)) - y,
    };
  }

  /** Light of the whole picture, spread about. */
  private async spread(): Promise<Coarse> {
    const [width, height] = this.shot.output.size,
      parts: [Area, Coarse][] = [],
      { signal } = this;
    await onAllLanes(this.plan.pieces, async (_, i) => {
      const { piece } = (await this.kept.pieces.get(i))!;
      parts[i] = [
        this.plan.pieces[i]!,
        await sharedPool().run('coarse', () => ({ piece, grade: this.grade, height }), { signal }),
      ];
    });
    const squares = joinedSquares(parts, width, height);
    return sharedPool().run('spread', () => ({ squares, height }), { signal });
  }

  /** Runs over the strips of an area, row of pieces by row of pieces. */
  private async strips(area: Area, run: (strip: Strip) => Promise<void>): Promise<void> {
    const each = Math.max(16, Math.floor(STRIP / this.shot.output.size[0]));
    const bottom = area.y + area.height,
      { rows: all } = this.plan;
    let index = 0;
    for (const [r, row] of all.entries()) {
      const from = Math.max(area.y, row[0]!.y),
        to = Math.min(bottom, row[0]!.y + row[0]!.height);
      if (from >= to) continue;
      const about = await this.row(row);
      // Lines look over the edge of a row of pieces.
      if (isDrawn(this.shot.grade))
        for (const next of [all[r - 1], all[r + 1]])
          about.push(...rowsAbout(await this.row(next ?? []), this.shot.grade, [from, to]));
      const strips: Strip[] = [];
      for (let y = from; y < to; y += each) {
        const rows = [y, Math.min(to, y + each)] as const;
        strips.push({ rows, tiles: [], index: index++ });
      }
      await onAllLanes(strips, (s) => run({ ...s, tiles: rowsAbout(about, this.shot.grade, s.rows) }));
    }
  }
  private async row(pieces: readonly Area[]): Promise<LightTile[]> {
    const found: LightTile[] = [];
    for (const p of pieces) found.push((await this.kept.pieces.get(this.plan.pieces.indexOf(p)))!.piece);
    return found;
  }
}
