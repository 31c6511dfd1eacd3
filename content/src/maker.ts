import {
  type Box,
  type Quat,
  type Transform,
  type Vec3,
  boxFromCells,
  quatFromEuler,
  mapVec,
} from '@sphalerite/core/math';
import {
  type Id,
  type Kind,
  type Project,
  type Side,
  EMPTY_RIG,
  TICKS,
  idsFrom,
  makeProject,
  must,
  sideSuffix,
} from '@sphalerite/core/model';
import type { Swatch } from '@sphalerite/core/palette';
import * as edits from '@sphalerite/core/project';
import { NO_MIRROR, type StrokeVerb, boxStroke } from '@sphalerite/core/sculpt';

/** Degrees about X, Y, Z (order YXZ) as a rotation. */
export const turn = (x: number, y = 0, z = 0): Quat =>
  quatFromEuler([(x * Math.PI) / 180, (y * Math.PI) / 180, (z * Math.PI) / 180]);

/** A box of cells given by two opposite corner cells. */
export type Cells = readonly [Vec3, Vec3];
export const span = (x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): Cells => [
  [x0, y0, z0],
  [x1, y1, z1],
];
/** The other side of the middle plane between cubes −1 and 0. */
export const flip = ([a, b]: Cells): Cells => [
  [-1 - a[0], a[1], a[2]],
  [-1 - b[0], b[1], b[2]],
];

/**
 * Makes a project by the same edits an artist's hand makes, with names in place of ids. Everything is
 * seeded by the project's name, so that the same code always gives the same file.
 */
export class Maker {
  project: Project;
  private step = 0;

  constructor(name: string, kind: Kind, metresPerUnit: number) {
    const blank = makeProject(
      `demo-${name.toLowerCase().replaceAll(/[^a-z]+/g, '-')}`,
      name,
      idsFrom(`${name} start`),
      kind,
    );
    // Everything but the palette is made below.
    this.project = { ...blank, metresPerUnit, parts: [], rig: EMPTY_RIG, shots: [] };
  }

  /** Goes on with a project that is there. */
  static from(project: Project): Maker {
    const m = new Maker(project.name, project.kind, project.metresPerUnit);
    m.project = project;
    return m;
  }

  apply<A>(edit: edits.Edit<A>, args: A): void {
    this.project = edits.apply(this.project, edit, args, edits.editContext(`${this.project.name} ${this.step++}`));
  }

  palette(name: string, swatches: readonly Swatch[]): void {
    this.apply(edits.setSwatchesEdit, { palette: this.project.palettes[0]!.id, name, swatches });
  }

  /** A bone whose joint stands at a point of the whole figure, unturned. */
  bone(name: string, parent: string | null, at: Vec3): void {
    const [stem, side] = splitSide(name);
    const p = parent === null ? null : this.boneId(parent);
    const above = p === null ? ([0, 0, 0] as Vec3) : this.jointAt(p);
    this.apply(edits.addBoneEdit, {
      name: stem,
      side,
      parent: p,
      t: [at[0] - above[0], at[1] - above[1], at[2] - above[2]],
    });
  }

  /** A part in the figure's own coordinates, turning about its bone's joint. */
  part(name: string, bone: string | null, [a, b]: Cells): Sculptor {
    const [stem, side] = splitSide(name);
    const id = bone === null ? null : this.boneId(bone);
    const joint = id === null ? ([0, 0, 0] as Vec3) : this.jointAt(id);
    const pivot = mapVec(joint, (v) => Math.round(v * 2));
    this.apply(edits.addPartEdit, {
      name: stem,
      side,
      bone: id,
      bounds: boxFromCells(a, b),
      pivot,
      at: [pivot[0] / 2 - joint[0], pivot[1] / 2 - joint[1], pivot[2] / 2 - joint[2]],
    });
    return new Sculptor(this, this.project.parts.at(-1)!.id);
  }

  /** A limb to a hand or foot, as the limb helper makes it: controls “… goal” and “… bend”. */
  limb(tip: string): void {
    this.apply(edits.addLimbEdit, { tip: this.boneId(tip) });
  }

  /** An attachment point on a bone, from its joint. */
  attach(name: string, bone: string, t: Vec3, q: Quat = [0, 0, 0, 1]): void {
    this.apply(edits.addAttachmentEdit, { bone: this.boneId(bone), name: splitSide(name)[0], t, q });
  }

  /** Hangs a bone where an attachment point is. */
  hang(bone: string, point: string): void {
    const [name, side] = splitSide(point);
    this.apply(edits.hangAtEdit, {
      bone: this.boneId(bone),
      attachment: this.project.rig.attachments.find((t) => t.name === name && t.side === side)!.id,
    });
  }

  /** As a ready rig whose joints may move by `range` cubes. */
  seal(range: number): void {
    this.apply(edits.sealRigEdit, { name: this.project.name, range });
  }

  /** Poses by frame for each bone, in degrees from rest, with optional shifts. */
  clip(
    name: string,
    frames: number,
    fps: number,
    loop: boolean,
    lanes: Readonly<Record<string, readonly Pose[]>>,
  ): void {
    this.apply(edits.addClipEdit, { name, frames, fps, loop });
    const clip = this.project.clips.at(-1)!.id;
    for (const [bone, poses] of Object.entries(lanes)) {
      for (const p of poses) {
        const time = Math.round((p.at * TICKS) / fps);
        const ease = p.ease ?? 'ease';
        if (p.turn)
          this.apply(edits.setKeyEdit, {
            clip,
            bone: this.boneId(bone),
            channel: 'turn',
            key: { time, ease, value: turn(...p.turn) },
          });
        if (p.move)
          this.apply(edits.setKeyEdit, {
            clip,
            bone: this.boneId(bone),
            channel: 'move',
            key: { time, ease, value: p.move },
          });
      }
    }
  }

  boneId(name: string): Id {
    const b = this.project.rig.bones.find((o) => o.name + sideSuffix(o.side) === name);
    if (!b) throw new Error(`No bone "${name}" has been made yet.`);
    return b.id;
  }

  clipId(name: string): Id {
    return this.project.clips.find((c) => c.name === name)!.id;
  }

  jointOf(name: string): Vec3 {
    return this.jointAt(this.boneId(name));
  }

  /** Where a joint stands at rest; bones are made unturned. */
  jointAt(id: Id): Vec3 {
    let at: Vec3 = [0, 0, 0];
    for (let b: Id | null = id; b !== null;) {
      const bone: { rest: Transform; parent: Id | null } = must(this.project.rig.bones, b, 'bone');
      at = [at[0] + bone.rest.t[0], at[1] + bone.rest.t[1], at[2] + bone.rest.t[2]];
      b = bone.parent;
    }
    return at;
  }
}

export interface Pose {
  /** Frame. */
  readonly at: number;
  readonly turn?: readonly [number, number?, number?];
  readonly move?: Vec3;
  readonly ease?: 'step' | 'linear' | 'ease';
}

const splitSide = (name: string): [string, Side] => {
  const m = /^(.*) (left|right)$/.exec(name);
  return m ? [m[1]!, m[2] as Side] : [name, 'centre'];
};

/** A hand on one part. */
export class Sculptor {
  constructor(
    private readonly maker: Maker,
    private readonly part: Id,
  ) {}

  private stroke(verb: StrokeVerb, value: number, boxes: readonly Box[], mirror: boolean): this {
    const layer = must(this.maker.project.parts, this.part, 'part').layers[0]!.id;
    this.maker.apply(edits.strokeEdit, {
      part: this.part,
      layer,
      stroke: boxStroke(verb, value, boxes, mirror ? [0, null, null] : NO_MIRROR),
    });
    return this;
  }

  add(value: number, ...cells: Cells[]): this {
    return this.stroke(
      'add',
      value,
      cells.map(([a, b]) => boxFromCells(a, b)),
      false,
    );
  }
  /** Adds on both sides of the middle. */
  both(value: number, ...cells: Cells[]): this {
    return this.stroke(
      'add',
      value,
      cells.map(([a, b]) => boxFromCells(a, b)),
      true,
    );
  }
  erase(...cells: Cells[]): this {
    return this.stroke(
      'erase',
      0,
      cells.map(([a, b]) => boxFromCells(a, b)),
      false,
    );
  }
  eraseBoth(...cells: Cells[]): this {
    return this.stroke(
      'erase',
      0,
      cells.map(([a, b]) => boxFromCells(a, b)),
      true,
    );
  }
  paint(value: number, ...cells: Cells[]): this {
    return this.stroke(
      'paint',
      value,
      cells.map(([a, b]) => boxFromCells(a, b)),
      false,
    );
  }
  paintBoth(value: number, ...cells: Cells[]): this {
    return this.stroke(
      'paint',
      value,
      cells.map(([a, b]) => boxFromCells(a, b)),
      true,
    );
  }

  /**
   * Three-tone shading in the colours themselves: cubes of the middle tone turn light at upper rims,
   * dark at the foot and in inner corners, with a few strays for life.
   */
  shade(dark: number, middle: number, light: number, strays = 0.06): this {
    const grid = must(this.maker.project.parts, this.part, 'part').layers[0]!.grid;
    const box = grid.contentBox();
    if (!box) return this;
    const lights: Box[] = [],
      darks: Box[] = [];
    const one = (x: number, y: number, z: number): Box => ({ min: [x, y, z], size: [1, 1, 1] });
    grid.forEach((x, y, z, v) => {
      if (v !== middle) return;
      const open = (dx: number, dy: number, dz: number): boolean => grid.get(x + dx, y + dy, z + dz) === 0;
      const side = open(1, 0, 0) || open(-1, 0, 0) || open(0, 0, 1) || open(0, 0, -1);
      const height = (y - box.min[1]) / Math.max(1, box.size[1] - 1);
      const noise = Math.abs(Math.sin(x * 12.9898 + y * 78.233 + z * 37.719) * 43758.5453) % 1;
      if (open(0, 1, 0) && side) lights.push(one(x, y, z));
      else if (open(0, -1, 0) && side) darks.push(one(x, y, z));
      else if (noise < strays) (height > 0.55 ? lights : darks).push(one(x, y, z));
    });
    if (lights.length > 0) this.stroke('paint', light, lights, false);
    if (darks.length > 0) this.stroke('paint', dark, darks, false);
    return this;
  }
}
