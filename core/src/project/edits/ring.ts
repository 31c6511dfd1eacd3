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

/**
 * Builds a ring of equal bars standing upright, its middle on the joint of `parent`: bars hung one on another, each turned by 360/n,
 * or bars crossed in the middle. Every bar is a part of its own with a bone of its own.
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
    if (![a.inner, a.thick, a.deep].every((v) => Number.isInteger(v) && v >= 1 && v <= 128))
      throw new EditError('ring.sizes');
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
      side = ringSide(a),
      middle = a.inner + a.thick / 2;
    // Bars lie along X; a crossed one stands with its ends up and down.
    const size: Vec3 = a.kind === 'bars' ? [variant.length, a.thick, a.deep] : [variant.width, variant.length, a.deep];
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
          ? { t: [0, 0, 0], q: turn((i * 2 * Math.PI) / a.sides) }
          : i === 0
            ? { t: [-side / 2, -middle, 0], q: turn(0) }
            : { t: [side, 0, 0], q: turn((2 * Math.PI) / a.sides) };
      const bone: Bone = {
        ...PLAIN_BONE,
        id: ctx.newId(),
        name,
        side: 'centre',
        parent: a.kind === 'crossed' ? a.parent : above,
        rest: { ...place, s: [1, 1, 1] },
      };
      const part = makePart(
        ctx.newId(),
        ctx.newId(),
        freeName(
          `${a.name} ${i + 1}`,
          parts.map((p) => p.name),
        ),
        a.palette,
        bounds,
        { pivot: [size[0], size[1], size[z]] },
      );
      bones.push(bone);
      parts.push({ ...part, layers: [{ ...part.layers[0]!, grid: cells }] });
      mounts.push(makeMount(ctx.newId(), part.id, bone.id, a.kind === 'crossed' ? [0, 0, 0] : [side / 2, 0, 0]));
      above = bone.id;
    }
    return { ...project, parts, rig: { ...project.rig, bones, mounts } };
  },
});
