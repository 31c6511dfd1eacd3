import { type Vec3, dot, sub } from '@sphalerite/core/math';
import { type DrawInstance, type DrawList, type Geometry, gridGeometry, instanceExtent } from '@sphalerite/core/scene';
import type { VoxelGrid } from '@sphalerite/core/voxel';

/** Quads that may be drawn at once, as far as coarser forms can help. */
export const MOST_QUADS = 300_000;
/** How often a grid is halved at most. */
export const LEVELS = 5;
/** Cubes of fewer pixels are not told apart. */
const SMALLEST = 0.75;
/** How much coarser than what the eye tells apart it may become, when there is that much. */
const COARSEST = 256;

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

/** What the choice needs of an instance. */
interface Item {
  readonly instance: DrawInstance;
  readonly centre: Vec3;
  readonly radius: number;
  /** Edge of a cube in the world. */
  readonly cube: number;
  readonly forms: Forms;
}
/** A geometry and its coarser forms, from half the fineness on. */
interface Forms {
  coarse: readonly Geometry[] | null;
  quads: readonly number[];
  asked: boolean;
  /** Those of the grid before, until its own are there. */
  before: readonly Geometry[] | null;
}

/** A body whose cubes lie together has about so many faces; half as fine it has about a third. */
const about = (grid: VoxelGrid): readonly number[] =>
  Array.from({ length: LEVELS + 1 }, (_, l) => Math.ceil((6 * grid.count ** (2 / 3)) / 3.4 ** l));
const NO_FORMS: Forms = { coarse: [], quads: [6], asked: true, before: null };

/**
 * Level of detail: what stands so far away that its cubes are smaller than a pixel is drawn by cubes of twice, four times, …
 * their size; and where that is still too much, coarser than that, what is small in the picture first. What can be drawn as
 * it is, is.
 */
export class Detail {
  private readonly forms = new WeakMap<Geometry, Forms>();
  /** By part, those that came last. */
  private readonly latest = new Map<string, Forms>();
  private readonly items = new WeakMap<DrawInstance, Item | null>();
  private readonly standIns = new WeakMap<DrawInstance, SeenInstance[]>();
  private of: DrawList | null = null;
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
    let all = 0;
    for (const i of list) all += this.drawnWith(i);
    const items = all <= this.most ? null : list.flatMap((i) => this.itemOf(i) ?? []);
    const levels = items && this.choose(items, eye);
    if (list === this.of && !this.stale && alike(levels, this.levels)) return this.last;
    this.of = list;
    this.stale = false;
    this.levels = levels;
    return (this.last = items ? items.flatMap((item, k) => this.standIn(item, levels![k]!) ?? []) : list);
  }

  /** The coarsest that still shows what can be told apart, and coarser while it is too much. */
  private choose(items: readonly Item[], eye: Eye): Uint8Array {
    const levels = new Uint8Array(items.length);
    const pixels = items.map(({ centre, radius, cube }) => {
      const depth = dot(sub(centre, eye.at), eye.ahead);
      if (eye.orthographic) return eye.pixels * cube;
      // What lies behind the eye throws no more than a shadow.
      return depth < -radius ? 0 : (eye.pixels * cube) / Math.max(depth - radius, cube);
    });
    for (let least = SMALLEST; least < COARSEST; least *= 1.3) {
      let all = 0;
      items.forEach(({ forms }, k) => {
        const sizes = forms.quads;
        const most = forms.coarse?.length ?? LEVELS;
        const level = pixels[k]! >= least ? 0 : Math.min(most, Math.ceil(Math.log2(least / pixels[k]!)));
        levels[k] = level;
        all += sizes[Math.min(level, sizes.length - 1)]!;
      });
      if (all <= this.most) break;
    }
    return levels;
  }

  /** Quads in full, as far as is known. */
  private drawnWith(i: DrawInstance): number {
    const { coarse, quads } = this.formsOf(i);
    return coarse ? quads[0]! : (this.drawn(i.geometry) ?? quads[0]!);
  }
  private formsOf({ geometry, source, palette }: DrawInstance): Forms {
    if (geometry.kind === 'cube') return NO_FORMS;
    let forms = this.forms.get(geometry);
    if (!forms) {
      const name = `${palette.id} ${source.part}`;
      const quads = about(geometry.grid);
      const last = this.latest.get(name);
      forms = { coarse: null, quads, asked: false, before: last?.coarse ?? last?.before ?? null };
      this.forms.set(geometry, forms);
      this.latest.set(name, forms);
    }
    return forms;
  }

  private itemOf(instance: DrawInstance): Item | null {
    let item = this.items.get(instance);
    if (item === undefined) {
      const e = instanceExtent(instance),
        m = instance.matrix;
      item = e && {
        instance,
        centre: [(e.lo[0] + e.hi[0]) / 2, (e.lo[1] + e.hi[1]) / 2, (e.lo[2] + e.hi[2]) / 2],
        radius: Math.hypot(...sub(e.hi, e.lo)) / 2,
        cube: Math.hypot(m[0]!, m[1]!, m[2]!),
        forms: this.formsOf(instance),
      };
      this.items.set(instance, item);
    }
    return item;
  }

  private standIn({ instance, forms }: Item, level: number): DrawInstance | null {
    const { geometry } = instance;
    if (!forms.asked && geometry.kind === 'grid') this.ask(geometry.grid, forms);
    if (level === 0) return instance;
    const ready = forms.coarse ?? forms.before;
    // Drawn in full it would stop everything; it comes in a moment.
    if (!ready) return this.drawn(geometry) === null ? null : instance;
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

  private ask(grid: VoxelGrid, forms: Forms): void {
    forms.asked = true;
    const come = (coarse: readonly VoxelGrid[], quads: readonly number[]): void => {
      Object.assign(forms, { coarse: coarse.map(gridGeometry), quads, before: null } satisfies Partial<Forms>);
      this.stale = true;
      this.arrived();
    };
    // Without them it is drawn as it is.
    this.coarsen(grid).then(
      (made) => come(made.forms, made.quads),
      () => come([], forms.quads.slice(0, 1)),
    );
  }
}

const alike = (a: Uint8Array | null, b: Uint8Array | null): boolean =>
  a === b || (a !== null && b !== null && a.length === b.length && a.every((v, i) => v === b[i]));
