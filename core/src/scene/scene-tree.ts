import {
  type Extent,
  type Mat4,
  MAT4_IDENTITY,
  type Vec3,
  invertMat,
  matrixOf,
  mulMat,
  transformPoint,
  translation,
} from '../math';
import type { Id, Placement, Project, Repeat, Scene, Shown } from '../model';
import { type Content, Contents } from './contents';
import { type DrawInstance, type DrawList, instanceExtent, listExtent, pickInstance } from './draw-list';
import { mirroredInstance } from './mirrored';
import { type Copy, repeatCopies } from './repeats';

type PlacementGroup = Scene['placements'][number];

/** A placement, what it came to, and what hangs on it. */
interface Node {
  placement: Placement;
  readonly children: Set<Node>;
  /** Its place among all placements. */
  rank: number;
  parent: Node | null;
  world: Mat4;
  /** Whether it or something above it is hidden. */
  hidden: boolean;
  content: Content;
  /** What it shows, hidden or not. */
  instances: DrawList;
  home: Home;
}
/** A group of the scene's placements with what they show together. */
interface Home {
  readonly nodes: Node[];
  list: DrawInstance[];
  stale: boolean;
}
/** The copies of a repeat, and what they were made of. */
interface Copies {
  readonly repeat: Repeat;
  readonly parent: Mat4;
  /** Where the placement itself stands: others stand as it does, though it shows nothing. */
  readonly world: Mat4;
  readonly source: DrawList;
  /** What else it may put down, what it puts it on, and what it keeps off. */
  readonly others: readonly Content[];
  readonly ground: DrawList | null;
  readonly off: DrawList;
  readonly places: readonly CopyPlace[];
  readonly instances: DrawList;
}

/** Where a copy stands. */
export interface CopyPlace extends Copy {
  /** Takes the placement's own place to the copy's and on to the world. */
  readonly placed: Mat4;
}

const NOTHING: Content = [];
const NOWHERE: Home = { nodes: [], list: [], stale: false };

/**
 * The tree of a scene, kept from one project to the next: groups of placements that are the same as before are not looked
 * at again, and what changed reaches only what hangs on it. From scratch and kept give the same list.
 */
export class SceneTree {
  private readonly contents = new Contents();
  private readonly nodes = new Map<Id, Node>();
  private homes = new Map<PlacementGroup, Home>();
  private groups: Scene['placements'] = [];
  private layers: Scene['layers'] = [];
  private hiddenLayers: ReadonlySet<Id> = new Set();
  /** What contents are made of. */
  private from: readonly unknown[] = [];
  private copies = new Map<Id, Copies>();
  private last: DrawList = [];
  /** Whether the list has to be put together anew. */
  private stale = false;

  list(project: Project, scene: Scene, colourway: Id | null): DrawList {
    const changed = this.takeGroups(scene.placements);
    const touched = this.takeContents(project, colourway, changed);
    for (const node of touched) this.refresh(node);
    this.takeLayers(scene.layers);
    const copies = this.repeat(project, scene.repeats, colourway);
    if (!this.stale) return this.last;
    this.stale = false;
    const own = scene.placements.map((group) => this.listOf(this.homes.get(group)!));
    this.last = ([] as DrawInstance[]).concat(...own, ...copies);
    return this.last;
  }

  /** Brings nodes in line with the groups; gives those whose placement is new or another. */
  private takeGroups(groups: Scene['placements']): Set<Node> {
    const changed = new Set<Node>();
    if (groups === this.groups) return changed;
    this.groups = groups;
    this.stale = true;
    const homes = new Map<PlacementGroup, Home>();
    const fresh: PlacementGroup[] = [];
    for (const group of groups) {
      const known = this.homes.get(group);
      if (known) homes.set(group, known);
      else fresh.push(group);
    }
    const gone = new Set<Node>();
    for (const [group, home] of this.homes) if (!homes.has(group)) for (const n of home.nodes) gone.add(n);
    for (const group of fresh) {
      const home: Home = { nodes: [], list: [], stale: true };
      for (const placement of group) {
        const node = this.nodeOf(placement, changed);
        node.home = home;
        home.nodes.push(node);
        gone.delete(node);
      }
      homes.set(group, home);
    }
    this.homes = homes;
    let rank = 0;
    for (const group of groups) for (const node of homes.get(group)!.nodes) node.rank = rank++;
    for (const node of gone) this.drop(node, changed);
    for (const node of changed) this.hang(node);
    return changed;
  }

  private nodeOf(placement: Placement, changed: Set<Node>): Node {
    let node = this.nodes.get(placement.id);
    if (!node) {
      node = {
        placement,
        children: new Set(),
        rank: 0,
        parent: null,
        world: MAT4_IDENTITY,
        hidden: false,
        content: NOTHING,
        instances: NOTHING as unknown as DrawList,
        home: NOWHERE,
      };
      this.nodes.set(placement.id, node);
      changed.add(node);
    } else if (node.placement !== placement) {
      node.placement = placement;
      changed.add(node);
    }
    return node;
  }

  private drop(node: Node, changed: Set<Node>): void {
    this.nodes.delete(node.placement.id);
    node.parent?.children.delete(node);
    changed.delete(node);
    for (const c of node.children) {
      c.parent = null;
      changed.add(c);
    }
  }

  private hang(node: Node): void {
    const { parent } = node.placement;
    const above = parent === null ? null : (this.nodes.get(parent) ?? null);
    if (above === node.parent) return;
    node.parent?.children.delete(node);
    node.parent = above;
    above?.children.add(node);
  }

  /** What each shows, where that may have changed; gives the nodes to be placed anew. */
  private takeContents(project: Project, colourway: Id | null, changed: Set<Node>): Set<Node> {
    const { parts, palettes, colourways, rig, clips, terrainSets, assets, metresPerUnit } = project;
    const from = [parts, palettes, colourways, rig, clips, terrainSets, assets, metresPerUnit, colourway];
    const same = from.every((v, i) => v === this.from[i]);
    this.from = from;
    for (const node of same ? [...changed] : this.nodes.values()) {
      const content = this.contents.of(project, node.placement, colourway);
      if (content === node.content) continue;
      node.content = content;
      changed.add(node);
    }
    return changed;
  }

  /** Places a node anew, and all that hangs on it when that moves or is hidden with it. */
  private refresh(first: Node): void {
    const open = [first];
    const seen = new Set<Node>();
    for (let node = open.pop(); node; node = open.pop()) {
      // A round of parents is refused when a project is read, and would never end.
      if (seen.has(node)) continue;
      seen.add(node);
      const { placement, parent, content } = node;
      const world = mulMat(parent?.world ?? MAT4_IDENTITY, matrixOf(placement));
      const hidden = placement.hidden || (parent?.hidden ?? false);
      const moved = node.hidden !== hidden || world.some((v, i) => v !== node.world[i]);
      if (moved) open.push(...node.children);
      node.world = world;
      node.hidden = hidden;
      node.instances = content.map(({ geometry, palette, matrix, part, mount }): DrawInstance => ({
        geometry,
        palette,
        matrix: mulMat(world, matrix),
        source: { path: [placement.id], part, mount, copy: 0 },
      }));
      node.home.stale = true;
      this.stale = true;
    }
  }

  /** Where the copies of a repeat stand, as of the last list; those that find no ground are not among them. */
  placesOf(repeat: Id): readonly CopyPlace[] {
    return this.copies.get(repeat)?.places ?? [];
  }

  private takeLayers(layers: Scene['layers']): void {
    if (layers === this.layers) return;
    this.layers = layers;
    this.hiddenLayers = new Set(layers.filter((l) => l.hidden).map((l) => l.id));
    for (const home of this.homes.values()) home.stale = true;
    this.stale = true;
  }

  private isShown(node: Node): boolean {
    return !node.hidden && !this.hiddenLayers.has(node.placement.layer);
  }

  private listOf(home: Home): DrawList {
    if (home.stale) {
      home.list = [];
      for (const node of home.nodes) if (this.isShown(node)) home.list.push(...node.instances);
      home.stale = false;
    }
    return home.list;
  }

  /** The copies of every repeat; they stand behind what stands itself. */
  private repeat(project: Project, repeats: readonly Repeat[], colourway: Id | null): DrawList[] {
    const copies = new Map<Id, Copies>();
    for (const repeat of repeats) {
      const node = this.nodes.get(repeat.placement);
      if (node) copies.set(repeat.id, this.copiesOf(project, repeat, node, colourway));
    }
    const same = copies.size === this.copies.size && [...copies].every(([id, c]) => this.copies.get(id) === c);
    if (!same) this.stale = true;
    this.copies = copies;
    return [...copies.values()].map((c) => c.instances);
  }

  /** What a node and all that hangs on it show, in the order of the placements, whenever each was hung there. */
  private hanging(node: Node): DrawInstance[] {
    const all = [node];
    for (const n of all) all.push(...n.children);
    all.sort((a, b) => a.rank - b.rank);
    return all.flatMap((n) => (this.isShown(n) ? n.instances : []));
  }

  private shownBy(id: Id): DrawInstance[] {
    const node = this.nodes.get(id);
    return node ? this.hanging(node) : [];
  }

  private copiesOf(project: Project, repeat: Repeat, node: Node, colourway: Id | null): Copies {
    const source = this.hanging(node);
    const others = this.isShown(node)
      ? othersOf(repeat).map((shows) => this.contents.of(project, { ...node.placement, shows }, colourway))
      : [];
    const below = repeat.kind === 'scatter' && repeat.on !== null ? this.nodes.get(repeat.on) : undefined;
    const ground = below ? this.hanging(below) : null;
    const off = repeat.kind === 'scatter' ? repeat.off.flatMap((id) => this.shownBy(id)) : [];
    const parent = node.parent?.world ?? MAT4_IDENTITY;
    const known = this.copies.get(repeat.id);
    const same =
      known?.repeat === repeat &&
      known.parent === parent &&
      known.world === node.world &&
      known.source.length === source.length &&
      source.every((i, n) => i === known.source[n]) &&
      sameObjects(others, known.others) &&
      sameObjects(ground ?? [], known.ground ?? []) &&
      sameObjects(off, known.off) &&
      (ground === null) === (known.ground === null);
    if (same) return known;
    const back = invertMat(parent),
      own = matrixOf(node.placement),
      { t } = node.placement;
    const kept = off.flatMap((i) => instanceExtent(i) ?? []);
    const places = repeatCopies(repeat, t).flatMap((c): CopyPlace[] => {
      const free = mulMat(parent, c.matrix);
      if (kept.some((e) => isOver(transformPoint(free, t), e))) return [];
      const placed = ground ? stood(free, t, ground, c.lift) : free;
      return placed ? [{ ...c, placed }] : [];
    });
    if (repeat.kind === 'mirror') {
      const instances = source.map((i) => mirroredInstance(i, parent, repeat.axis, repeat.at));
      return { repeat, parent, world: node.world, source, others, ground, off, places, instances };
    }
    const instances = places.flatMap(({ copy, placed, source: which }): DrawInstance[] => {
      if (which !== null) {
        const world = mulMat(placed, own);
        // Nothing else is there either while the placement is hidden.
        return (others[which] ?? []).map(({ geometry, palette, matrix, part, mount }) => ({
          geometry,
          palette,
          matrix: mulMat(world, matrix),
          source: { path: [node.placement.id], part, mount, copy },
        }));
      }
      const over = mulMat(placed, back);
      return source.map((i) => ({ ...i, matrix: mulMat(over, i.matrix), source: { ...i.source, copy } }));
    });
    return { repeat, parent, world: node.world, source, others, ground, off, places, instances };
  }
}

const sameObjects = (a: readonly unknown[], b: readonly unknown[]): boolean =>
  a.length === b.length && a.every((v, i) => v === b[i]);

/** What a repeat puts down besides its placement, as copies count them. */
export function othersOf(repeat: Repeat): readonly Shown[] {
  if (repeat.kind === 'scatter') return repeat.sources.map((s) => s.shows);
  return repeat.kind === 'line' && repeat.second ? [repeat.second] : [];
}

const isOver = ([x, , z]: Vec3, { lo, hi }: Extent): boolean => x > lo[0] && x < hi[0] && z > lo[2] && z < hi[2];

/**
 * A copy set down on what lies below it; null where nothing does.
 *
 * @param to – from its parent's space to the world; at – its anchor there; lift – how far above it stands
 */
function stood(to: Mat4, at: Vec3, ground: DrawList, lift: number): Mat4 | null {
  const there = transformPoint(to, at),
    high = listExtent(ground)?.hi[1];
  if (high === undefined) return null;
  const hit = pickInstance(ground, [there[0], high + 1, there[2]], [0, -1, 0]);
  return hit && mulMat(translation([0, high + 1 - hit.t + lift - there[1], 0]), to);
}
