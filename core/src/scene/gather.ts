import { type Mat4, MAT4_IDENTITY, QUAT_IDENTITY, invertMat, matrixOf, mulMat, scale, translation } from '../math';
import {
  type Asset,
  type Id,
  type Part,
  type Placement,
  type Project,
  type Repeat,
  type Scene,
  composite,
  find,
  lookUp,
  must,
  pivotPoint,
} from '../model';
import { clipTime, sampleClip, withAlternatesAt } from '../motion';
import { type Palette, recoloured } from '../palette';
import { type Pose, REST_POSE, placeParts } from '../rig';
import { type DrawInstance, type DrawList, type Geometry, cubeGeometry, gridGeometry } from './draw-list';
import { repeatMatrices } from './repeats';

/** What of a project is looked at: its rig at a pose, or a scene. */
export type DrawView = { readonly of: 'rig'; readonly pose?: Pose } | { readonly of: 'scene'; readonly scene: Id };

/** An instance in the space of the placement that shows it. */
interface Local {
  readonly geometry: Geometry;
  readonly palette: Palette;
  readonly matrix: Mat4;
  readonly path: readonly Id[];
  readonly part: Id | null;
  readonly mount: Id | null;
}
type Content = readonly Local[];

/** What a placement came to, and all that this was made of. */
interface Entry {
  readonly placement: Placement;
  readonly parent: Mat4;
  readonly world: Mat4;
  readonly content: Content;
  readonly instances: DrawList;
}
interface Copies {
  readonly repeat: Repeat;
  readonly parent: Mat4;
  readonly source: DrawList;
  readonly instances: DrawList;
}

const NOTHING: Content = [];
/** A round of parents would never end; files with one are refused. */
const DEEPEST = 1000;

/** What stands where: {@link Gatherer} without a memory. */
export const gather = (project: Project, view: DrawView, colourway: Id | null = null): DrawList =>
  new Gatherer().gather(project, view, colourway);

/**
 * The one place that says what stands where: the rig at a pose, or a scene with its placements, repeats, rigs, terrain cubes
 * and other projects, in a colourway. Everything that draws, traces, pictures, checks, picks and ships starts from its list.
 * Asked again for the next project, it makes anew only what changed.
 */
export class Gatherer {
  private entries = new Map<Id, Entry>();
  private copies = new Map<Id, Copies>();
  private last: DrawList = [];
  private rigs = new Map<string, { readonly from: readonly unknown[]; readonly content: Content }>();
  private readonly parts = new WeakMap<Part, Map<Palette, Content>>();
  private readonly cubes = new WeakMap<Geometry, Map<Palette, Content>>();
  private readonly inside = new Map<Id, Gatherer>();
  private readonly sizes = new WeakMap<Content, Map<number, Content>>();

  gather(project: Project, view: DrawView, colourway: Id | null = null): DrawList {
    const fresh =
      view.of === 'rig'
        ? this.rigInstances(project, view.pose ?? REST_POSE, colourway)
        : this.sceneInstances(project, must(project.scenes, view.scene, 'scene'), colourway);
    const { last } = this;
    if (fresh.length !== last.length || fresh.some((i, n) => i !== last[n])) this.last = fresh;
    return this.last;
  }

  private rigInstances(project: Project, pose: Pose, colourway: Id | null): DrawInstance[] {
    return placeParts(project, pose).map(({ part, mount, matrix }) => ({
      geometry: gridGeometry(composite(part)),
      palette: paletteOf(project, part.palette, colourway),
      matrix,
      source: { path: [], part: part.id, mount: mount.id, copy: 0 },
    }));
  }

  private sceneInstances(project: Project, scene: Scene, colourway: Id | null): DrawInstance[] {
    const byId = new Map<Id, Placement>();
    for (const group of scene.placements) for (const p of group) byId.set(p.id, p);
    const hiddenLayers = new Set(scene.layers.filter((l) => l.hidden).map((l) => l.id));
    const entries = new Map<Id, Entry>();
    const hidden = new Map<Id, boolean>();
    const isHidden = (p: Placement): boolean => {
      let h = hidden.get(p.id);
      if (h === undefined) {
        const above = p.parent === null ? undefined : byId.get(p.parent);
        h = p.hidden || (above !== undefined && isHidden(above));
        hidden.set(p.id, h);
      }
      return h;
    };
    const entryOf = (p: Placement, depth = 0): Entry => {
      const made = entries.get(p.id);
      if (made) return made;
      const above = p.parent === null || depth > DEEPEST ? undefined : byId.get(p.parent);
      const parent = above ? entryOf(above, depth + 1).world : MAT4_IDENTITY;
      const entry = this.entry(p, parent, this.content(project, p, p.colourway ?? colourway));
      entries.set(p.id, entry);
      return entry;
    };
    const out: DrawInstance[] = [];
    for (const p of byId.values()) {
      const entry = entryOf(p);
      if (!hiddenLayers.has(p.layer) && !isHidden(p)) for (const i of entry.instances) out.push(i);
    }
    this.entries = entries;
    this.repeat(scene, byId, entries, (p) => !hiddenLayers.has(p.layer) && !isHidden(p), out);
    return out;
  }

  private entry(placement: Placement, parent: Mat4, content: Content): Entry {
    const known = this.entries.get(placement.id);
    if (known && known.placement === placement && known.parent === parent && known.content === content) return known;
    const world = mulMat(parent, matrixOf(placement));
    const instances = content.map(({ geometry, palette, matrix, path, part, mount }): DrawInstance => ({
      geometry,
      palette,
      matrix: mulMat(world, matrix),
      source: { path: [placement.id, ...path], part, mount, copy: 0 },
    }));
    return { placement, parent, world, content, instances };
  }

  /** The copies of every repeat, behind what stands itself. */
  private repeat(
    scene: Scene,
    byId: ReadonlyMap<Id, Placement>,
    entries: ReadonlyMap<Id, Entry>,
    isShown: (p: Placement) => boolean,
    out: DrawInstance[],
  ): void {
    const copies = new Map<Id, Copies>();
    if (scene.repeats.length > 0) {
      const children = new Map<Id | null, Placement[]>();
      for (const p of byId.values()) children.set(p.parent, [...(children.get(p.parent) ?? []), p]);
      const below = (p: Placement): DrawInstance[] => [
        ...(isShown(p) ? entries.get(p.id)!.instances : []),
        ...(children.get(p.id) ?? []).flatMap(below),
      ];
      for (const repeat of scene.repeats) {
        const placement = byId.get(repeat.placement);
        if (!placement) continue;
        const made = this.copiesOf(repeat, placement, entries.get(placement.id)!.parent, below(placement));
        copies.set(repeat.id, made);
        out.push(...made.instances);
      }
    }
    this.copies = copies;
  }

  private copiesOf(repeat: Repeat, placement: Placement, parent: Mat4, source: DrawList): Copies {
    const known = this.copies.get(repeat.id);
    const same =
      known?.repeat === repeat &&
      known.parent === parent &&
      known.source.length === source.length &&
      source.every((i, n) => i === known.source[n]);
    if (same) return known;
    const back = invertMat(parent);
    const instances = repeatMatrices(repeat, placement.t).flatMap((m, n) => {
      const over = mulMat(mulMat(parent, m), back);
      return source.map((i): DrawInstance => ({
        ...i,
        matrix: mulMat(over, i.matrix),
        source: { ...i.source, copy: n + 1 },
      }));
    });
    return { repeat, parent, source, instances };
  }

  private content(project: Project, { shows }: Placement, colourway: Id | null): Content {
    switch (shows.kind) {
      case 'group':
        return NOTHING;
      case 'part': {
        const part = lookUp(project.parts, shows.part);
        return part && !part.hidden ? this.partContent(part, paletteOf(project, part.palette, colourway)) : NOTHING;
      }
      case 'rig':
        return this.rigContent(`rig ${shows.clip} ${shows.time}`, project, shows.clip, shows.time, colourway);
      case 'cube':
        return this.cubeContent(project, shows.cube, colourway);
      case 'asset': {
        const asset = find(project.assets, shows.asset);
        return asset ? this.assetContent(project, asset, shows.clip, shows.time, colourway) : NOTHING;
      }
    }
  }

  private partContent(part: Part, palette: Palette): Content {
    let byPalette = this.parts.get(part);
    if (!byPalette) this.parts.set(part, (byPalette = new Map()));
    let content = byPalette.get(palette);
    if (!content) {
      const cell = matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [part.cell, part.cell, part.cell] });
      const matrix = mulMat(cell, translation(scale(pivotPoint(part), -1)));
      content = [{ geometry: gridGeometry(composite(part)), palette, matrix, path: [], part: part.id, mount: null }];
      byPalette.set(palette, content);
    }
    return content;
  }

  /** A terrain cube: one project unit for each texel, standing on its middle. */
  private cubeContent(project: Project, id: Id, colourway: Id | null): Content {
    for (const set of project.terrainSets) {
      const cube = find(set.cubes, id);
      if (!cube) continue;
      const geometry = cubeGeometry(set, cube),
        palette = paletteOf(project, set.palette, colourway);
      let byPalette = this.cubes.get(geometry);
      if (!byPalette) this.cubes.set(geometry, (byPalette = new Map()));
      let content = byPalette.get(palette);
      if (!content) {
        const matrix = translation([-set.texels / 2, 0, -set.texels / 2]);
        content = [{ geometry, palette, matrix, path: [], part: null, mount: null }];
        byPalette.set(palette, content);
      }
      return content;
    }
    return NOTHING;
  }

  /** A project's rig at a moment; the same content while nothing of it changes. */
  private rigContent(key: string, project: Project, clip: Id | null, time: number, colourway: Id | null): Content {
    const from = [project.rig, project.parts, project.palettes, project.clips, project.colourways, colourway];
    const name = `${key} ${colourway}`;
    const known = this.rigs.get(name);
    if (known && known.from.every((v, i) => v === from[i])) return known.content;
    const played = find(project.clips, clip) ?? null;
    const at = played ? clipTime(played, time) : 0;
    const dressed = withAlternatesAt(project, played, at);
    const pose = played ? sampleClip(played, project.rig, at) : REST_POSE;
    const content = placeParts(dressed, pose).map(({ part, mount, matrix }): Local => ({
      geometry: gridGeometry(composite(part)),
      palette: paletteOf(project, part.palette, colourway),
      matrix,
      path: [],
      part: part.id,
      mount: mount.id,
    }));
    this.rigs.set(name, { from, content });
    return content;
  }

  /** Another project's rig, as large in metres as it is there. A colourway of it is known by its id. */
  private assetContent(project: Project, asset: Asset, clip: Id | null, time: number, colourway: Id | null): Content {
    let gatherer = this.inside.get(asset.id);
    if (!gatherer) this.inside.set(asset.id, (gatherer = new Gatherer()));
    const content = gatherer.rigContent(`asset ${clip} ${time}`, asset.project, clip, time, colourway);
    const k = asset.project.metresPerUnit / project.metresPerUnit;
    return k === 1 ? content : this.scaled(content, k);
  }

  private scaled(content: Content, k: number): Content {
    let byScale = this.sizes.get(content);
    if (!byScale) this.sizes.set(content, (byScale = new Map()));
    let out = byScale.get(k);
    if (!out) {
      const grow = matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [k, k, k] });
      out = content.map((l) => ({ ...l, matrix: mulMat(grow, l.matrix) }));
      byScale.set(k, out);
    }
    return out;
  }
}

/** A palette as it looks in a colourway; the same object while neither changes. */
function paletteOf(project: Project, id: Id, colourway: Id | null): Palette {
  const palette = lookUp(project.palettes, id) ?? must(project.palettes, id, 'palette');
  const way = find(project.colourways, colourway);
  return way ? recoloured(palette, way) : palette;
}
