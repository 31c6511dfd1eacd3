import type { Project, Shot } from '@sphalerite/core/model';
import {
  type Area,
  type Film,
  type FilmLight,
  type LightTile,
  coarse,
  isDrawn,
  makeFilm,
  tileIndex,
  traceCamera,
} from '@sphalerite/core/render';
import { PiecePlan } from '@sphalerite/core/takes';
import { markRaw } from 'vue';
import { sharedPool } from '../../workers/pool';
import type { KeptTake } from './kept';
import type { Take } from './takes';

/** What taking the noise out of a piece costs, in tiles that are traced. */
const CALMING = 16;
/** Longest edge of what is shown of it while it is made. */
const SHOWN = 640;

/** Whether finished pieces need what the eye met besides their light. */
const needsGuides = ({ grade, output }: Shot): boolean => isDrawn(grade) || (output.file === 'exr' && output.passes);

/** All memory of a film. */
const buffersOf = (film: Film): ArrayBuffer[] =>
  film.tiles.flatMap((t) =>
    Object.values(t ?? {}).flatMap((v) => (v instanceof Float32Array ? [v.buffer as ArrayBuffer] : [])),
  );

/** Runs a job for each of a list, as many at once as there are workers. */
export async function onAllLanes<T>(list: readonly T[], run: (item: T, index: number) => Promise<void>): Promise<void> {
  const left = [...list.entries()];
  const lane = async (): Promise<void> => {
    for (let next = left.shift(); next; next = left.shift()) await run(next[1], next[0]);
  };
  await Promise.all(Array.from({ length: sharedPool().size }, lane));
}

/** A large picture as it is made: tiles and pieces are kept as they come, so that it goes on from the last of them. */
export class LargePicture {
  readonly plan: PiecePlan;
  private readonly camera;
  private readonly shown: FilmLight & { tiles: LightTile[] };
  private readonly step: number;
  private readonly began = performance.now();
  private made = 0;

  constructor(
    private readonly take: Take,
    private readonly project: Project,
    private readonly shot: Shot,
    private readonly kept: KeptTake,
    private readonly signal: AbortSignal,
  ) {
    const { size, denoise } = shot.output,
      [width, height] = size;
    this.plan = new PiecePlan(width, height, denoise);
    this.camera = denoise ? traceCamera(shot.camera, width, height, project.metresPerUnit) : null;
    take.count = this.plan.tiles.length + this.plan.pieces.length * (denoise ? CALMING : 0);
    take.made = 0;
    // Squares of a power of two, so that they go into pieces evenly.
    this.step = 2 ** Math.max(0, Math.ceil(Math.log2(Math.max(width, height) / SHOWN)));
    this.shown = markRaw({
      ...{ width: Math.ceil(width / this.step), height: Math.ceil(height / this.step) },
      tiles: [],
    });
    this.tell();
  }

  /** Makes what is missing. @throws JobCancelled when it is stopped */
  async make(): Promise<void> {
    const { plan, kept, take } = this;
    const [tiles, pieces] = [await kept.tiles.indexes(), await kept.pieces.indexes()];
    for (const i of pieces) this.show((await kept.pieces.get(i))!.piece);
    const open = (row: readonly Area[]): Area[] => row.filter((p) => !pieces.has(plan.pieces.indexOf(p)));
    const missing = new Set(plan.tilesFor(plan.rows.flatMap(open)).filter((i) => !tiles.has(i)));
    take.made = take.count - missing.size - plan.rows.flatMap(open).length * (this.camera ? CALMING : 0);
    for (const [r, row] of plan.rows.entries()) {
      // What counts for a row of pieces reaches into the next.
      const now = plan.tilesFor(open(row)).filter((i) => missing.delete(i));
      await this.trace(now);
      await onAllLanes(open(row), (piece) => this.finish(piece));
      await kept.tiles.drop(0, plan.firstFor(r + 1));
    }
  }

  /** Traces tiles on every worker, each of them kept as soon as it is done. */
  private async trace(indexes: readonly number[]): Promise<void> {
    const [width] = this.shot.output.size,
      lanes = sharedPool().size,
      keeping: Promise<void>[] = [];
    await Promise.all(
      Array.from({ length: lanes }, (_, lane) => {
        const tiles = indexes.filter((_, i) => i % lanes === lane).map((i) => ({ ...this.plan.tiles[i]! }));
        if (tiles.length === 0) return;
        return sharedPool().run(
          'tiles',
          (sent) => ({
            project: sent.packProject(this.project),
            shot: JSON.parse(JSON.stringify(this.shot)) as Shot,
            tiles,
          }),
          {
            patient: true,
            signal: this.signal,
            worker: lane,
            onProgress: (_share, traced) => {
              if (!traced) return;
              keeping.push(this.kept.tiles.put(tileIndex({ width }, traced), { traced }));
              this.further(1);
            },
          },
        );
      }),
    ).finally(() => Promise.all(keeping));
  }

  /** Takes the noise out of a piece, and keeps it. */
  private async finish(piece: Area): Promise<void> {
    const { plan, kept, shot, camera, signal } = this;
    const film: Film = makeFilm(...shot.output.size);
    for (const i of plan.tilesFor([piece])) film.tiles[i] = (await kept.tiles.get(i))!.traced;
    const drawn = needsGuides(shot);
    const input = { film, camera, piece: { ...piece }, drawn };
    // Handed over and not copied: it is 40 MB.
    const made = await sharedPool().run('piece', () => input, {
      ...{ signal, patient: true, transfer: buffersOf(film) },
    });
    await kept.pieces.put(plan.pieces.indexOf(piece), { piece: made });
    this.show(made);
    if (camera) this.further(CALMING);
  }

  private further(by: number): void {
    const { take } = this;
    take.made += by;
    this.made += by;
    take.left = ((performance.now() - this.began) / 1000 / this.made) * (take.count - take.made);
  }

  /** Puts a piece into what is shown meanwhile. */
  private show({ x, y, width, height, light }: LightTile): void {
    const { light: squares, ...small } = coarse(light, width, height, this.step);
    this.shown.tiles.push({
      ...{ x: x / this.step, y: y / this.step, width: small.width, height: small.height, samples: 1 },
      ...{ light: squares, cover: new Float32Array(small.width * small.height).fill(1) },
    });
    this.tell();
  }
  private tell(): void {
    this.take.shown = { film: this.shown, grade: this.shot.grade, grown: this.shown.tiles.length };
  }
}
