import {
  type Mat4,
  type Quat,
  type Vec3,
  mulQuat,
  normalize,
  quatFromAxisAngle,
  transformDirection,
  mapVec,
} from '@sphalerite/core/math';
import { type Mount, type Project, composite, constraintTargets } from '@sphalerite/core/model';
import { type Pose, worldMatrices } from '@sphalerite/core/rig';
import { rayWalk } from '@sphalerite/core/voxel';
import { ref } from 'vue';
import { useView } from '../../stores/view';
import { angleOnRing, arrowUnder, pixels, ringUnder } from '../../viewport/handles';
import type { JointMark, Overlay } from '../../viewport/overlay';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { alongAxis } from '../../tools/geometry';
import { toLattice } from '../../viewport/pick';

const UNIT: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const RING_PIXELS = 58;
const ARROW_PIXELS = 64;

/** What a screen tells the handles, and what they tell back. */
export interface HandleHost {
  project(): Project | null;
  /** The pose on screen. */
  pose(): Pose;
  /** The pose that a drag began from is what counts while it lasts; this is the saved one. */
  basePose(): Pose;
  selected(): string | null;
  select(bone: string): void;
  /** What the arrows do, or null to show rings. */
  arrows(): 'world' | null;
  enabled(): boolean;
  /** A new local rotation; `done` when the hand let go. */
  turn(bone: string, q: Quat, degrees: number, axis: number, done: boolean): void;
  /** A shift in rig space. */
  move(bone: string, delta: Vec3, done: boolean): void;
  cancel(): void;
  /** What arrows move by, in project units; 0 for any length. Half a unit when missing. */
  step?(): number;
}

const originOf = (m: Mat4): Vec3 => [m[12]!, m[13]!, m[14]!];

/** Joints to pick, rings to turn by and arrows to move by, the same in Rig and Animate. */
export function boneHandles(host: HandleHost): {
  pointer: PointerUser;
  overlay(): Pick<Overlay, 'joints' | 'rings' | 'arrows'>;
  /** The mount whose part is under the pointer. */ mountUnder(p: ViewPointer): string | null;
} {
  const view = useView();
  const hot = ref(-1);
  let drag: {
    kind: 'ring' | 'arrow';
    axis: number;
    from: number;
    at: Vec3;
    dir: Vec3;
    bone: string;
    q: Quat;
    last: number;
    turns: number;
    value: number;
  } | null = null;

  const world = (): Map<string, Mat4> => (host.project() ? worldMatrices(host.project()!.rig, host.pose()) : new Map());
  const localQ = (id: string): Quat =>
    (host.basePose().get(id) ?? host.project()!.rig.bones.find((b) => b.id === id)!.rest).q;

  function frame(): { id: string; at: Vec3; axes: Vec3[] } | null {
    const id = host.selected();
    const m = id === null ? undefined : world().get(id);
    if (!m || id === null) return null;
    const axes = host.arrows() === 'world' ? [...UNIT] : UNIT.map((u) => normalize(transformDirection(m, u)));
    return { id, at: originOf(m), axes };
  }
  function handleUnder(p: ViewPointer): number {
    const f = frame(),
      v = view.viewport;
    if (!f || !v || !host.enabled()) return -1;
    return host.arrows()
      ? arrowUnder(v, p.x, p.y, f.at, f.axes, pixels(v, ARROW_PIXELS))
      : ringUnder(v, p.x, p.y, f.at, f.axes, pixels(v, RING_PIXELS));
  }
  function jointUnder(p: ViewPointer): string | null {
    const v = view.viewport;
    if (!v) return null;
    let best = 10,
      found: string | null = null;
    const steering = new Set(host.project()?.rig.constraints.flatMap(constraintTargets));
    for (const [id, m] of world()) {
      const s = v.screenOf(originOf(m));
      // A control stands on the joint it steers, and is what one means there.
      const d = Math.hypot(s.x - p.x, s.y - p.y) - (steering.has(id) ? 3 : 0);
      if (d < best) {
        best = d;
        found = id;
      }
    }
    return found;
  }
  /** The mounted part under the pointer; what hangs on no bone does not count. */
  function mountUnder(p: ViewPointer): Mount | null {
    let best = Infinity,
      found: Mount | null = null;
    for (const { part, matrix, mount } of view.viewport?.placed ?? []) {
      if (mount.bone === null) continue;
      const ray = toLattice(p.ray, matrix);
      const hit = rayWalk(composite(part), ray.origin, ray.dir);
      if (hit && hit.t < best) {
        best = hit.t;
        found = mount;
      }
    }
    return found;
  }

  const pointer: PointerUser = {
    down(p) {
      const axis = handleUnder(p);
      if (axis >= 0) {
        const f = frame()!;
        const dir = f.axes[axis]!;
        const kind = host.arrows() ? 'arrow' : 'ring';
        const from = (kind === 'arrow' ? alongAxis(p.ray, f.at, dir) : angleOnRing(p.ray, f.at, dir)) ?? 0;
        drag = { kind, axis, from, at: f.at, dir, bone: f.id, q: localQ(f.id), last: from, turns: 0, value: 0 };
        hot.value = axis;
        return true;
      }
      const joint = jointUnder(p);
      if (joint === null) return false;
      host.select(joint);
      return true;
    },
    move(p) {
      if (!drag) {
        hot.value = handleUnder(p);
        if (view.viewport) view.viewport.canvas.style.cursor = hot.value >= 0 ? 'grab' : '';
        return;
      }
      if (drag.kind === 'ring') {
        const a = angleOnRing(p.ray, drag.at, drag.dir);
        if (a === null) return;
        // More than one round is counted on, not lost.
        if (a - drag.last > Math.PI) drag.turns--;
        else if (a - drag.last < -Math.PI) drag.turns++;
        drag.last = a;
        const raw = ((a - drag.from) * 180) / Math.PI + drag.turns * 360;
        const step = p.shift ? 1 : 5;
        drag.value = Math.round(raw / step) * step;
        host.turn(
          drag.bone,
          mulQuat(drag.q, quatFromAxisAngle(UNIT[drag.axis]!, (drag.value * Math.PI) / 180)),
          drag.value,
          drag.axis,
          false,
        );
      } else {
        const along = alongAxis(p.ray, drag.at, drag.dir);
        if (along === null) return;
        const step = host.step?.() ?? 0.5,
          raw = along - drag.from;
        drag.value = step > 0 ? Math.round(raw / step) * step : Math.round(raw * 100) / 100;
        host.move(
          drag.bone,
          mapVec(drag.dir, (n) => n * drag!.value),
          false,
        );
      }
    },
    up() {
      const d = drag;
      drag = null;
      hot.value = -1;
      if (!d) return;
      if (d.value === 0) host.cancel();
      else if (d.kind === 'ring')
        host.turn(
          d.bone,
          mulQuat(d.q, quatFromAxisAngle(UNIT[d.axis]!, (d.value * Math.PI) / 180)),
          d.value,
          d.axis,
          true,
        );
      else
        host.move(
          d.bone,
          mapVec(d.dir, (n) => n * d.value),
          true,
        );
    },
    click(p) {
      const bone = mountUnder(p)?.bone;
      if (bone) host.select(bone);
    },
    leave() {
      hot.value = -1;
    },
    cancel() {
      if (drag) host.cancel();
      drag = null;
      hot.value = -1;
    },
  };

  return {
    pointer,
    overlay() {
      void view.cameraTick;
      const p = host.project(),
        v = view.viewport;
      if (!p || !v) return { joints: [], rings: null, arrows: null };
      const w = world(),
        controls = new Set(p.rig.constraints.flatMap(constraintTargets));
      const joints = p.rig.bones.map((b): JointMark => ({
        at: originOf(w.get(b.id)!),
        parent: b.parent === null ? null : originOf(w.get(b.parent)!),
        selected: b.id === host.selected(),
        side: b.side,
        control: controls.has(b.id),
      }));
      const f = frame();
      if (!f || !host.enabled()) return { joints, rings: null, arrows: null };
      return host.arrows()
        ? { joints, rings: null, arrows: { at: f.at, axes: f.axes, length: pixels(v, ARROW_PIXELS), hot: hot.value } }
        : { joints, rings: { at: f.at, axes: f.axes, radius: pixels(v, RING_PIXELS), hot: hot.value }, arrows: null };
    },
    mountUnder: (p) => mountUnder(p)?.id ?? null,
  };
}
