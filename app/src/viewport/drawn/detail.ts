import type { Vec3 } from '@sphalerite/core/math';
import { type DrawInstance, type DrawList, type Geometry, gridGeometry, instanceExtent } from '@sphalerite/core/scene';
import type { VoxelGrid } from '@sphalerite/core/voxel';

/** Quads that may be drawn at once, as far as coarser forms can help. */
export const MOST_QUADS = 300_000;
/** How often a grid is halved at most. */
export const LEVELS = 5;
/** Cubes of fewer pixels are not told apart; as a power of two. */
const SMALLEST = Math.log2(0.75);
/** So many pixels a cube may become, as a power of two, when there is that much. */
const COARSEST = 9;

/** Ever coarser forms of a grid, and the quads of the grid itself and of each form. */
export interface CoarserForms {
  readonly forms: readonly VoxelGrid[];
  readonly quads: readonly number[];
}
/** Makes them, away from the page. */
export type CoarsenInBackground = (grid: VoxelGrid) => Promise<CoarserForms>;

/** From where it is looked. */
export interface Eye {
  readonly at: Vec3;
  readonly ahead: Vec3;
  readonly orthographic: boolean;
  /** Pixels of a world unit: at a distance of 1, or anywhere without perspective. */
  readonly pixels: number;
}

/** An instance as it is drawn: itself, or a coarser form in its place. */
export interface SeenInstance extends DrawInstance {
  readonly level?: number;
  /** What it stands for. */
  readonly whole?: DrawInstance;
}

/** A geometry and its coarser forms, from half the fineness on. */
interface Forms {
  readonly geometry: Geometry;
  coarse: readonly Geometry[] | null;
  quads: readonly number[];
  asked: boolean;
  /** Those of the grid before, until its own are there. */
  before: readonly Geometry[] | null;
}

/** A body whose cubes lie together has about so many faces; half as fine it has about a third. */
const about = (grid: VoxelGrid): readonly number[] =>
  Array.from({ length: LEVELS + 1 }, (_, l) => Math.ceil((6 * grid.count ** (2 / 3)) / 3.4 ** l));

/** A list as the choice goes through it, five thousand for each picture: by numbers in rows. */
interface Table {
  readonly list: DrawList;
  /** Middle, radius and the edge of a cube in the world, five numbers for each. */
  readonly where: Float64Array;
  /** Which of the forms each has. */
  readonly which: Uint16Array;
  readonly forms: readonly Forms[];
  /** How many have each of the forms. */
  readonly counts: readonly number[];
}

/**
 * Level of detail: what stands so far away that its cubes are smaller than a pixel is drawn by cubes of twice, four times, …
 * their size; and where that is still too much, coarser than that, what is small in the picture first. What can be drawn as
 * it is, is.
 */
export class Detail {
  private readonly forms = new WeakMap<Geometry, Forms>();
  /** By part, those that came last. */
  private readonly latest = new Map<string, Forms>();
  private readonly standIns = new WeakMap<DrawInstance, SeenInstance[]>();
  private of: DrawList | null = null;
  private table: Table | null = null;
  private last: DrawList = [];
  private levels: Uint8Array | null = null;
  /** Whether forms came since the last list was made. */
  private stale = false;

  /**
   * @param drawn – quads of what is drawn already; null of what is not
   * @param arrived – told when coarser forms are there
   */
  constructor(
    private readonly coarsen: CoarsenInBackground,
    private readonly drawn: (geometry: Geometry) => number | null,
    private readonly arrived: () => void,
    private readonly most = MOST_QUADS,
  ) {}

  /** The list as it is drawn from an eye; the same list as long as nothing differs. */
  seen(list: DrawList, eye: Eye): DrawList {
    if (this.table?.list !== list) this.table = this.tableOf(list);
    const { forms, counts } = this.table;
    const all = forms.reduce((n, f, k) => n + counts[k]! * this.drawnWith(f), 0);
    const levels = all <= this.most ? null : this.choose(this.table, eye);
    if (list === this.of && !this.stale && alike(levels, this.levels)) return this.last;
    this.of = list;
    this.stale = false;
    this.levels = levels;
    return (this.last = levels ? this.standing(this.table, levels) : list);
  }

  private tableOf(list: DrawList): Table {
    const where = new Float64Array(list.length * 5),
      which = new Uint16Array(list.length);
    const forms: Forms[] = [],
      counts: number[] = [],
      places = new Map<Forms, number>();
    list.forEach((instance, i) => {
      const form = this.formsOf(instance);
      let place = places.get(form);
      if (place === undefined) {
        places.set(form, (place = forms.length));
        forms.push(form);
        counts.push(0);
      }
      which[i] = place;
      counts[place]!++;
      const e = instanceExtent(instance),
        m = instance.matrix;
      if (!e) return;
      const { lo, hi } = e;
      where[5 * i] = (lo[0] + hi[0]) / 2;
      where[5 * i + 1] = (lo[1] + hi[1]) / 2;
      where[5 * i + 2] = (lo[2] + hi[2]) / 2;
      where[5 * i + 3] = Math.hypot(hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]) / 2;
      where[5 * i + 4] = Math.hypot(m[0]!, m[1]!, m[2]!);
    });
    return { list, where, which, forms, counts };
  }

  /** The coarsest that still shows what can be told apart, and coarser while it is too much. */
  private choose({ where, which, forms }: Table, { at, ahead, orthographic, pixels }: Eye): Uint8Array {
    const n = which.length;
    const levels = new Uint8Array(n),
      fineness = new Float64Array(n);
    for (let i = 0, k = 0; i < n; i++, k += 5) {
      const radius = where[k + 3]!,
        cube = where[k + 4]!;
      const depth =
        (where[k]! - at[0]) * ahead[0] + (where[k + 1]! - at[1]) * ahead[1] + (where[k + 2]! - at[2]) * ahead[2];
      // What lies behind the eye throws no more than a shadow.
      const far = orthographic ? 1 : depth < -radius ? Infinity : Math.max(depth - radius, cube);
      fineness[i] = Math.log2((pixels * cube) / far);
    }
    const quads = new Float64Array(forms.length * (LEVELS + 1)),
      coarsest = forms.map((f) => f.coarse?.length ?? LEVELS);
    forms.forEach((f, k) => {
      for (let l = 0; l <= LEVELS; l++) quads[k * (LEVELS + 1) + l] = f.quads[Math.min(l, f.quads.length - 1)]!;
    });
    /** Sets the levels at which a cube has so many pixels, as a power of two, and gives what that comes to. */
    const set = (least: number): number => {
      let all = 0;
      for (let i = 0; i < n; i++) {
        const form = which[i]!;
        const short = least - fineness[i]!;
        const level = short <= 0 ? 0 : Math.min(coarsest[form]!, Math.ceil(short));
        levels[i] = level;
        all += quads[form * (LEVELS + 1) + level]!;
      }
      return all;
    };
    if (set(SMALLEST) <= this.most) return levels;
    // Between what may be seen and what may be drawn, to a quarter of a level.
    let [lo, hi] = [SMALLEST, COARSEST];
    while (hi - lo > 0.25) {
      const middle = (lo + hi) / 2;
      if (set(middle) <= this.most) hi = middle;
      else lo = middle;
    }
    set(hi);
    return levels;
  }

  /** Quads in full, as far as is known. */
  private drawnWith({ geometry, coarse, quads }: Forms): number {
    return coarse ? quads[0]! : (this.drawn(geometry) ?? quads[0]!);
  }
  private formsOf({ geometry, source, palette }: DrawInstance): Forms {
    let forms = this.forms.get(geometry);
    if (!forms) {
      if (geometry.kind === 'cube') forms = { geometry, coarse: [], quads: [6], asked: true, before: null };
      else {
        const name = `${palette.id} ${source.part}`,
          last = this.latest.get(name);
        const before = last?.coarse ?? last?.before ?? null;
        forms = { geometry, coarse: null, quads: about(geometry.grid), asked: false, before };
        this.latest.set(name, forms);
      }
      this.forms.set(geometry, forms);
    }
    return forms;
  }

  private standing({ list, which, forms }: Table, levels: Uint8Array): DrawInstance[] {
    for (const f of forms) this.ask(f);
    return list.flatMap((instance, i) => this.standIn(instance, forms[which[i]!]!, levels[i]!) ?? []);
  }
  private standIn(instance: DrawInstance, forms: Forms, level: number): DrawInstance | null {
    if (level === 0) return instance;
    const ready = forms.coarse ?? forms.before;
    // Drawn in full it would stop everything; it comes in a moment.
    if (!ready) return this.drawn(forms.geometry) === null ? null : instance;
    const at = Math.min(level, ready.length);
    if (at === 0) return instance;
    let known = this.standIns.get(instance);
    if (!known) this.standIns.set(instance, (known = []));
    if (known[at]?.geometry !== ready[at - 1]) {
      const matrix = instance.matrix.map((v, i) => (i < 12 ? v * 2 ** at : v));
      known[at] = { ...instance, geometry: ready[at - 1]!, matrix, level: at, whole: instance };
    }
    return known[at]!;
  }

  private ask(forms: Forms): void {
    if (forms.asked || forms.geometry.kind !== 'grid') return;
    forms.asked = true;
    const come = (coarse: readonly VoxelGrid[], quads: readonly number[]): void => {
      Object.assign(forms, { coarse: coarse.map(gridGeometry), quads, before: null } satisfies Partial<Forms>);
      this.stale = true;
      this.arrived();
    };
    // Without them it is drawn as it is.
    this.coarsen(forms.geometry.grid).then(
      (made) => come(made.forms, made.quads),
      () => come([], forms.quads.slice(0, 1)),
    );
  }
}

const alike = (a: Uint8Array | null, b: Uint8Array | null): boolean =>
  a === b || (a !== null && b !== null && a.length === b.length && a.every((v, i) => v === b[i]));
