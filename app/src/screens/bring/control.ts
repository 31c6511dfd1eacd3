import { IconCheck, IconX } from '@tabler/icons-vue';
import { type Box, MAT4_IDENTITY, type Vec3 } from '@sphalerite/core/math';
import { type Rig, composite } from '@sphalerite/core/model';
import { REST_POSE, restWorld } from '@sphalerite/core/rig';
import { gather, listExtent } from '@sphalerite/core/scene';
import { computed, nextTick, watch } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { runCommand } from '../../stores/commands';
import { type JointMark, NO_OVERLAY } from '../../viewport/overlay';
import type { PointerUser } from '../../viewport/view-input';
import { bringChips } from './bring-chips';
import { useBringing } from './bring-state';
import { joining } from './joining';
import { pathPlaces } from './path-places';

const figure = (n: number): string => n.toLocaleString('en');

/** The box that a mesh will fill: at once when another size is wished, while its cubes are still being made. */
function cageOf({ made, options }: ReturnType<typeof useBringing>): Box | null {
  const cage = made?.facts['cage'];
  if (!cage || made!.facts['exact']?.length) return null;
  const [x, y, z] = [0, 1, 2].map((a) => cage[3 + a]! - cage[a]!) as [number, number, number];
  const cubes =
    options['size'] === 'true'
      ? (made!.facts['size']?.[0] ?? 1) / (y || 1)
      : Number(options['height']) / (y || Math.max(x, z) || 1);
  const size = [x, y, z].map((v) => Math.max(1, Math.round(v * cubes))) as unknown as Vec3;
  return { min: [-Math.floor(size[0] / 2), 0, -Math.floor(size[2] / 2)], size };
}

/** The bones that come, where they stand at rest. */
function jointsOf(rig: Rig): JointMark[] {
  const worlds = restWorld(rig);
  return rig.bones.map((b) => ({
    at: worlds.get(b.id)!.t,
    parent: b.parent === null ? null : worlds.get(b.parent)!.t,
    selected: false,
    side: b.side,
    dim: true,
  }));
}

/** What the first does not take goes to the second. */
const either = (first: PointerUser, second: PointerUser): PointerUser => ({
  down: (p) => first.down(p) || second.down(p),
  move(p, settle) {
    first.move(p, settle);
    second.move(p, settle);
  },
  up(p) {
    first.up(p);
    second.up(p);
  },
  leave() {
    first.leave();
    second.leave();
  },
  cancel() {
    first.cancel();
    second.cancel();
  },
});

export function bringControl(): ScreenControl {
  const bringing = useBringing();
  const list = computed(() => (bringing.made ? gather(bringing.made.project, { of: 'rig' }) : []));
  const join = joining(list);
  const path = pathPlaces(list);
  const joints = computed(() => (bringing.made ? jointsOf(bringing.made.project.rig) : []));
  const nobody = (): void => undefined;
  // What became much larger or smaller than what was last looked at is framed anew.
  let framed = 0;
  const offFraming = watch(
    list,
    async (l) => {
      const e = listExtent(l);
      if (!e) return;
      const long = Math.hypot(...e.hi.map((v, a) => v - e.lo[a]!));
      if (framed > 0 && Math.abs(Math.log(long / framed)) < 0.3) return;
      framed = long;
      await nextTick();
      await runCommand('view.frame').catch(nobody);
    },
    { immediate: true },
  );
  return {
    scene: () => {
      const m = bringing.made;
      return m && { project: m.project, pose: REST_POSE, list: list.value, styleOf: () => 'plain' };
    },
    overlay: () => ({
      ...NO_OVERLAY,
      lattice: MAT4_IDENTITY,
      bounds: cageOf(bringing),
      joints: path.works.value ? path.marks.value : joints.value,
      corners: join.corners.value,
    }),
    pointer: either(path.pointer, join.pointer),
    inHand: () => listExtent(list.value),
    trail: () => [bringing.file ? 'Bring in' : 'Make up', bringing.title ?? 'nothing'],
    chips: () => bringChips(join, path),
    readout: () => {
      const m = bringing.made;
      if (!m) return { left: [], right: bringing.busy ? 'being made' : '' };
      const parts = m.project.parts,
        [w, h, d] = parts[0]!.bounds.size,
        cubes = parts.reduce((n, p) => n + composite(p).count, 0);
      const { pixels, triangles, points, bones } = m.facts;
      const of: [string, string][] = pixels
        ? [
            [
              m.facts['slices'] ? 'slices' : 'picture',
              [...(m.facts['slices']?.slice(0, 1) ?? []), ...pixels].map(figure).join(' × '),
            ],
          ]
        : triangles
          ? [['mesh', `${figure(triangles[0]!)} triangles`]]
          : points
            ? [['points', figure(points[0]!)]]
            : [];
      return {
        left: [
          ...of,
          ...(parts.length === 1
            ? [['part', `${w} × ${h} × ${d}`] as [string, string]]
            : [
                ...(pixels
                  ? [[m.facts['sprites'] ? 'each' : 'field', (m.facts['size'] ?? []).join(' × ')] as [string, string]]
                  : []),
                ['parts', figure(parts.length)] as [string, string],
                ...(bones?.[0] ? [['bones', figure(bones[0])] as [string, string]] : []),
              ]),
          ['cubes', figure(cubes)],
          ['colours', figure(m.facts['colours']?.[1] ?? 0)],
        ],
        right: `made anew in ${Math.round(m.took)} ms · nothing is in the project yet`,
      };
    },
    dispose: offFraming,
    commands: [
      {
        id: 'bring.take',
        title: 'Bring it in',
        group: 'Bring in',
        keys: ['Enter'],
        icon: IconCheck,
        enabled: () => (bringing.busy ? 'it is being made' : bringing.made ? true : 'nothing is made yet'),
        run: () => bringing.bring(),
      },
      {
        id: 'bring.removePlace',
        title: 'Take the place out of the way',
        group: 'Bring in',
        keys: ['Delete'],
        enabled: () => (path.removable.value ? true : 'press a place of a rope first; two stay'),
        run: path.remove,
      },
      {
        id: 'bring.cancel',
        title: 'Cancel',
        group: 'Bring in',
        keys: ['Esc'],
        icon: IconX,
        run: () => bringing.leave(),
      },
    ],
  };
}
