import { type Mat4, QUAT_IDENTITY, matrixOf, mulMat, scale, translation } from '../math';
import {
  type Asset,
  type Id,
  type Part,
  type Placement,
  type Project,
  composite,
  find,
  lookUp,
  pivotPoint,
} from '../model';
import { clipTime, sampleClip, withAlternatesAt } from '../motion';
import type { Palette } from '../palette';
import { REST_POSE, placeParts } from '../rig';
import { type Geometry, cubeGeometry, gridGeometry } from './draw-list';
import { paletteOf } from './rig-list';

/** Something drawn, in the space of the placement that shows it. */
export interface Local {
  readonly geometry: Geometry;
  readonly palette: Palette;
  readonly matrix: Mat4;
  readonly part: Id | null;
  readonly mount: Id | null;
}
/** What one placement shows; the same object while nothing of it changes. */
export type Content = readonly Local[];

const NOTHING: Content = [];

/** A value for two keys, made when it is first asked for. */
class Pairs<A extends object, B, V> {
  private readonly known = new WeakMap<A, Map<B, V>>();
  get(a: A, b: B, make: () => V): V {
    let byB = this.known.get(a);
    if (!byB) this.known.set(a, (byB = new Map()));
    let value = byB.get(b);
    if (value === undefined) byB.set(b, (value = make()));
    return value;
  }
}

/** What placements show, remembered from one project to the next. */
export class Contents {
  private readonly parts = new Pairs<Part, Palette, Content>();
  private readonly cubes = new Pairs<Geometry, Palette, Content>();
  private readonly sizes = new Pairs<Content, number, Content>();
  private readonly rigs = new Map<string, { readonly from: readonly unknown[]; readonly content: Content }>();
  private readonly inside = new Map<Id, Contents>();

  /** @param colourway – of the scene; a placement's own goes before it */
  of(project: Project, { shows, colourway: own }: Placement, colourway: Id | null): Content {
    const look = own ?? colourway;
    switch (shows.kind) {
      case 'group':
        return NOTHING;
      case 'part': {
        const part = lookUp(project.parts, shows.part);
        return part && !part.hidden ? this.part(part, paletteOf(project, part.palette, look)) : NOTHING;
      }
      case 'rig':
        return this.rig(project, shows.clip, shows.time, look);
      case 'cube':
        return this.cube(project, shows.cube, look);
      case 'asset': {
        const asset = lookUp(project.assets, shows.asset);
        return asset ? this.asset(project, asset, shows.clip, shows.time, look) : NOTHING;
      }
    }
  }

  private part(part: Part, palette: Palette): Content {
    return this.parts.get(part, palette, () => {
      const cell = matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [part.cell, part.cell, part.cell] });
      const matrix = mulMat(cell, translation(scale(pivotPoint(part), -1)));
      return [{ geometry: gridGeometry(composite(part)), palette, matrix, part: part.id, mount: null }];
    });
  }

  /** A terrain cube: one project unit for each texel, standing on its middle. */
  private cube(project: Project, id: Id, colourway: Id | null): Content {
    for (const set of project.terrainSets) {
      const cube = find(set.cubes, id);
      if (!cube) continue;
      const geometry = cubeGeometry(set, cube),
        palette = paletteOf(project, set.palette, colourway);
      return this.cubes.get(geometry, palette, () => {
        const matrix = translation([-set.texels / 2, 0, -set.texels / 2]);
        return [{ geometry, palette, matrix, part: null, mount: null }];
      });
    }
    return NOTHING;
  }

  /** A project's rig at a moment of a clip; null is its rest pose. */
  private rig(project: Project, clip: Id | null, time: number, colourway: Id | null): Content {
    const from = [project.rig, project.parts, project.palettes, project.clips, project.colourways];
    const key = `${clip} ${time} ${colourway}`;
    const known = this.rigs.get(key);
    if (known && known.from.every((v, i) => v === from[i])) return known.content;
    const played = find(project.clips, clip) ?? null;
    const at = played ? clipTime(played, time) : 0;
    const pose = played ? sampleClip(played, project.rig, at) : REST_POSE;
    const content = placeParts(withAlternatesAt(project, played, at), pose).map(({ part, mount, matrix }): Local => ({
      geometry: gridGeometry(composite(part)),
      palette: paletteOf(project, part.palette, colourway),
      matrix,
      part: part.id,
      mount: mount.id,
    }));
    this.rigs.set(key, { from, content });
    return content;
  }

  /** Another project's rig, as large in metres as it is there. A colourway of it is known by its id. */
  private asset(project: Project, asset: Asset, clip: Id | null, time: number, colourway: Id | null): Content {
    let inside = this.inside.get(asset.id);
    if (!inside) this.inside.set(asset.id, (inside = new Contents()));
    const content = inside.rig(asset.project, clip, time, colourway);
    const k = asset.project.metresPerUnit / project.metresPerUnit;
    if (k === 1) return content;
    return this.sizes.get(content, k, () => {
      const grow = matrixOf({ t: [0, 0, 0], q: QUAT_IDENTITY, s: [k, k, k] });
      return content.map((l) => ({ ...l, matrix: mulMat(grow, l.matrix) }));
    });
  }
}
