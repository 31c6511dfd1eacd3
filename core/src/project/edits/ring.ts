import { type Axis, type Vec3, boxFromCells, quatFromAxisAngle } from '../../math';
import {
  type Bone,
  type Id,
  type Mount,
  PLAIN_BONE,
  type Part,
  freeName,
  makeMount,
  makePart,
  must,
} from '../../model';
import { type RingPlan, type RingVariant, ringSide, ringVariants } from '../../rig';
import { MAX_EDGE } from '../../voxel';
import { EditError, defineEdit } from '../edit';

/** How far the lowest corner of a ring is below its middle: whole bars may stick out of the shape a little. */
function lowest({ sides, inner, thick }: RingPlan, { kind, length, width, bones }: RingVariant): number {
  const [out, half] = kind === 'crossed' ? [length / 2, width / 2] : [inner + thick, length / 2];
  const turns = Array.from({ length: bones }, (_, i) => (i * 2 * Math.PI) / sides);
  return Math.max(...turns.map((t) => out * Math.abs(Math.cos(t)) + half * Math.abs(Math.sin(t))));
}

/**
 * Builds a ring of equal bars standing upright, its middle on the joint of `parent`, or where that is null on the floor: bars hung
 * one on another, each turned by 360/n, each a part of its own; or one part crossed with itself, on a bone for each time.
 */
export const buildRingEdit = defineEdit<
  RingPlan & {
    readonly kind: RingVariant['kind'];
    readonly name: string;
    readonly deep: number;
    readonly parent: Id | null;
    readonly value: number;
    readonly palette: Id;
  }
>({
  name: 'buildRing',
  label: (a) => `Ring of ${a.sides}: ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    if (!Number.isInteger(a.sides) || a.sides < 3 || a.sides > 64) throw new EditError('ring.sides');
    if (![a.thick, a.deep].every((v) => Number.isInteger(v) && v >= 1 && v <= 128)) throw new EditError('ring.sizes');
    if (!(a.inner > 0 && a.inner <= 128)) throw new EditError('ring.hole');
    const variant = ringVariants(a).find((v) => v.kind === a.kind);
    if (!variant) throw new EditError('ring.crossed');
    if (variant.length > MAX_EDGE || variant.width > MAX_EDGE) throw new EditError('ring.tooLong', { most: MAX_EDGE });
    must(project.palettes, a.palette, 'palette');
    const z: Axis = 2,
      turn = (angle: number) => quatFromAxisAngle([0, 0, 1], angle);
    const bones = [...project.rig.bones],
      parts: Part[] = [...project.parts],
      mounts: Mount[] = [...project.rig.mounts];
    const count = variant.bones,
      // Nowhere, it stands on the floor.
      rise = a.parent === null ? lowest(a, variant) : 0,
      side = ringSide(a),
      middle = a.inner + a.thick / 2;
    // Bars lie along X; a crossed one stands with its ends up and down.
    const size: Vec3 =
      a.kind === 'crossed' ? [variant.width, variant.length, a.deep] : [variant.length, a.thick, a.deep];
    const bounds = boxFromCells([0, 0, 0], [size[0] - 1, size[1] - 1, size[z] - 1]);
    const cells = makePart('', '', '', a.palette, bounds).layers[0]!.grid.edit((d) => d.fillBox(bounds, a.value));
    let above = a.parent;
    for (let i = 0; i < count; i++) {
      const name = freeName(
        `${a.name} ${i + 1}`,
        bones.filter((b) => b.side === 'centre').map((b) => b.name),
      );
      // The first bar lies at the foot of the ring; each next one begins where the last ends.
      const place: Pick<Bone['rest'], 't' | 'q'> =
        a.kind === 'crossed'
          ? { t: [0, rise, 0], q: turn((i * 2 * Math.PI) / a.sides) }
          : i === 0
            ? { t: [-side / 2, rise - middle, 0], q: turn(0) }
            : { t: [side, 0, 0], q: turn((2 * Math.PI) / a.sides) };
      const bone: Bone = {
        ...PLAIN_BONE,
        id: ctx.newId(),
        name,
        side: 'centre',
        parent: a.kind === 'crossed' ? a.parent : above,
        rest: { ...place, s: [1, 1, 1] },
      };
      bones.push(bone);
      // A bar crossed with itself is one part, there as often as it has bones.
      if (a.kind !== 'crossed' || i === 0) {
        const names = parts.map((p) => p.name);
        const part = makePart(
          ctx.newId(),
          ctx.newId(),
          freeName(a.kind === 'crossed' ? a.name : `${a.name} ${i + 1}`, names),
          a.palette,
          bounds,
          { pivot: [size[0], size[1], size[z]] },
        );
        parts.push({ ...part, layers: [{ ...part.layers[0]!, grid: cells }] });
      }
      const at: Vec3 = a.kind === 'crossed' ? [0, 0, 0] : [side / 2, 0, 0];
      mounts.push(makeMount(ctx.newId(), parts.at(-1)!.id, bone.id, at));
      above = bone.id;
    }
    return { ...project, parts, rig: { ...project.rig, bones, mounts } };
  },
});
