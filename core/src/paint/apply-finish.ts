import type { Axis, Box } from '../math';
import type { Palette } from '../palette';
import { byteTable, type CellSet, type VoxelGrid } from '../voxel';
import { FACING, girthOf, toneOfCourse } from './courses';
import type { Blend, Finish, PaintFrame } from './finish';
import { forOcclusion } from './occlusion';
import { ordered, scatter } from './scatter';
import { type OwnTones, nearTones, ownTones } from './tones';

/** Which cubes a finish may touch. */
export interface FinishLimits {
  /** Only these; all when null. */
  readonly within: CellSet | null;
  /** Only cubes of these palette bytes; all when null. */
  readonly only: readonly number[] | null;
  /** Only cubes in this box. */
  readonly box: Box;
}

/** Steps of tone that a cube's own colour may go up or down. */
const OWN_DEPTH = 2;

/**
 * A layer painted with a finish; cubes stay where they are, only their colour changes.
 *
 * @param seen – all visible layers, by which surfaces are found
 */
export function applyFinish(
  layer: VoxelGrid,
  seen: VoxelGrid,
  finish: Finish,
  frame: PaintFrame,
  palette: Palette,
  limits: FinishLimits,
): VoxelGrid {
  const own = finish.ramp.length === 0 ? ownTones(palette) : null;
  const tone = toner(finish, own);
  const only = limits.only && byteTable((i) => (limits.only!.includes(i) ? 1 : 0));
  const at = (c: number, axis: 0 | 1 | 2): number => ((2 * c + 1 + frame.half[axis]) * frame.cell) / 2;
  const index = (c: number, axis: 0 | 1 | 2): number => (2 * c + 1 + frame.half[axis]) >> 1;
  const may = (x: number, y: number, z: number, v: number): boolean =>
    (only === null || only[v] === 1) && (limits.within === null || limits.within.has(x, y, z));

  return layer.edit((draft) => {
    const give = (x: number, y: number, z: number, v: number, value: number, blend: Blend): void =>
      draft.set(x, y, z, tone(v, value, blend, index(x, 0), index(y, 1), index(z, 2)));
    /** Visits what may be painted. */
    const inBox = layer.clippedTo(limits.box);
    const each = (visit: (x: number, y: number, z: number, v: number) => void): void =>
      inBox.forEach((x, y, z, v) => {
        if (may(x, y, z, v)) visit(x, y, z, v);
      });
    switch (finish.kind) {
      case 'gradient': {
        const { from, to } = finish;
        const d = [to[0] - from[0], to[1] - from[1], to[2] - from[2]] as const;
        const length = d[0] * d[0] + d[1] * d[1] + d[2] * d[2];
        each((x, y, z, v) => {
          const p = [at(x, 0) - from[0], at(y, 1) - from[1], at(z, 2) - from[2]] as const;
          const t =
            length === 0
              ? 0
              : finish.round
                ? Math.sqrt((p[0] * p[0] + p[1] * p[1] + p[2] * p[2]) / length)
                : (p[0] * d[0] + p[1] * d[1] + p[2] * d[2]) / length;
          give(x, y, z, v, t, finish.blend);
        });
        return;
      }
      case 'height': {
        const span = finish.high - finish.low;
        each((x, y, z, v) => give(x, y, z, v, span <= 0 ? 1 : (at(y, 1) - finish.low) / span, finish.blend));
        return;
      }
      case 'dither':
        each((x, y, z, v) => give(x, y, z, v, finish.share, finish.blend));
        return;
      case 'speckle': {
        const clump = (c: number, axis: 0 | 1 | 2): number => Math.floor(at(c, axis) / finish.size + 1e-9);
        each((x, y, z, v) => {
          const [a, b, c] = [clump(x, 0), clump(y, 1), clump(z, 2)];
          if (scatter(a, b, c, finish.seed) < finish.amount)
            give(x, y, z, v, scatter(a, b, c, finish.seed + 1), 'bands');
        });
        return;
      }
      case 'occlusion':
        forOcclusion(
          seen,
          finish.reach,
          (x, y, z, shut) => {
            const v = layer.get(x, y, z);
            // What another layer covers cannot be seen.
            if (v !== 0 && seen.get(x, y, z) === v && may(x, y, z, v))
              give(x, y, z, v, 1 - Math.min(1, 2 * shut * finish.strength), finish.blend);
          },
          limits.box,
        );
        return;
      case 'bricks':
      case 'planks': {
        // Boards may differ; bricks of one wall hardly do.
        const near = own && (finish.kind === 'bricks' ? nearTones(palette) : own);
        // Between joints a shade darker bricks are as they are or lighter; without joints they are told apart by all their tones.
        const darkest = near && finish.gap > 0 ? 0 : 1 - OWN_DEPTH,
          tones = Math.max(1, finish.ramp.length || OWN_DEPTH - darkest);
        const lay = (x: number, y: number, z: number, v: number, t: number): void => {
          if (t < 0) draft.set(x, y, z, finish.joint || (near ? near.darker[v]! : v));
          else if (near) draft.set(x, y, z, stepped(near, v, t + darkest));
          else draft.set(x, y, z, finish.ramp[t]!);
        };
        if (finish.sides === 'around' && finish.around) {
          const { axis, centre, radius } = finish.around;
          const girth = girthOf(finish, radius),
            [b, c] = [((axis + 1) % 3) as Axis, ((axis + 2) % 3) as Axis];
          each((x, y, z, v) => {
            const p = [at(x, 0), at(y, 1), at(z, 2)] as const;
            const turn = Math.atan2(p[c] - centre[c], p[b] - centre[b]) / (2 * Math.PI) + 0.5;
            const u = Math.min(turn, 1 - 1e-9) * girth.length,
              w = p[axis];
            const [along, over] = finish.upright ? [w, u] : [u, w];
            lay(x, y, z, v, toneOfCourse(finish, along, over, FACING.z, tones, girth.count));
          });
          return;
        }
        const facingOf =
          finish.sides === 'floor' ? () => 'y' as const : facings(seen, limits.box, finish.sides === 'each');
        each((x, y, z, v) => {
          const facing = facingOf(x, y, z);
          const u = facing === 'x' ? at(z, 2) : at(x, 0),
            w = facing === 'y' ? at(z, 2) : at(y, 1);
          const t = finish.upright
            ? toneOfCourse(finish, w, u, FACING[facing], tones)
            : toneOfCourse(finish, u, w, FACING[facing], tones);
          lay(x, y, z, v, t);
        });
      }
    }
  }, limits.box);
}

/** Which way the open faces of a cube look; dense cells are read many times faster than a grid. */
function facings(
  seen: VoxelGrid,
  { min, size }: Box,
  floors: boolean,
): (x: number, y: number, z: number) => 'x' | 'y' | 'z' {
  const nx = size[0] + 2,
    slice = nx * (size[1] + 2);
  const cells = seen.readBox({ min: [min[0] - 1, min[1] - 1, min[2] - 1], size: [nx, size[1] + 2, size[2] + 2] });
  return (x, y, z) => {
    const i = x - min[0] + 1 + (y - min[1] + 1) * nx + (z - min[2] + 1) * slice;
    if (cells[i - slice] === 0 || cells[i + slice] === 0) return 'z';
    if (cells[i - 1] === 0 || cells[i + 1] === 0) return 'x';
    return floors && (cells[i - nx] === 0 || cells[i + nx] === 0) ? 'y' : 'z';
  };
}

/** The byte that many steps lighter (or darker, below 0) among a colour's own tones. */
function stepped(own: OwnTones, v: number, steps: number): number {
  for (let i = 0; i < steps; i++) v = own.lighter[v]!;
  for (let i = 0; i > steps; i--) v = own.darker[v]!;
  return v;
}

/** Turns a value from dark (0) to light (1) into a byte: along the ramp, or among the cube's own tones. */
function toner(finish: Finish, own: OwnTones | null) {
  const { ramp, seed } = finish;
  // Corners darken a colour, nothing lightens it; elsewhere its own tone lies in the middle.
  const [low, high] =
    finish.kind === 'occlusion' ? [-OWN_DEPTH, 0] : finish.kind === 'speckle' ? [-1, 1] : [-OWN_DEPTH, OWN_DEPTH];
  const last = own ? high - low : ramp.length - 1;
  return (v: number, value: number, blend: Blend, x: number, y: number, z: number): number => {
    const t = Math.min(1, Math.max(0, value));
    let i: number;
    if (blend === 'bands') i = Math.min(last, Math.floor(t * (last + 1)));
    else {
      const f = t * last;
      i = Math.floor(f);
      if (i < last && f - i > (blend === 'ordered' ? ordered(x, y, z) : scatter(x, y, z, seed))) i++;
    }
    return own ? stepped(own, v, i + low) : ramp[i]!;
  };
}
