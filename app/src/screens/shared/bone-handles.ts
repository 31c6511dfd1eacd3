import { type Mat4, type Quat, type Vec3, normalize, transformDirection } from '@sphalerite/core/math';
import type { Mount, Project } from '@sphalerite/core/model';
import { type Pose, worldMatrices } from '@sphalerite/core/rig';
import { ref } from 'vue';
import { useView } from '../../stores/view';
import { arrowUnder, pixels, ringUnder } from '../../viewport/handles';
import type { JointMark, Overlay } from '../../viewport/overlay';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { type BoneDrag, arrowDrag, ringDrag } from './bone-drag';
import { jointUnder, mountUnder, originOf, steeringBones } from './bone-picking';

const UNIT: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
const RING_PIXELS = 58;
const ARROW_PIXELS = 64;
/** Units that arrows move by when the screen does not say. */
const ARROW_STEP = 0.5;

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
export interface BoneHandles {
  readonly pointer: PointerUser;
  overlay(): Pick<Overlay, 'joints' | 'rings' | 'arrows'>;
  /** The mount whose part is under the pointer. */
  mountUnder(p: ViewPointer): string | null;
}

/** The bone in hand: where its handles stand and along which axes. */
function useHandleFrame(host: HandleHost) {
  const view = useView();
  const world = (): Map<string, Mat4> => (host.project() ? worldMatrices(host.project()!.rig, host.pose()) : new Map());
  function frame(): { bone: string; at: Vec3; axes: Vec3[] } | null {
    const bone = host.selected();
    const m = bone === null ? undefined : world().get(bone);
    if (!m || bone === null) return null;
    const axes = host.arrows() === 'world' ? [...UNIT] : UNIT.map((u) => normalize(transformDirection(m, u)));
    return { bone, at: originOf(m), axes };
  }
  /** Which of the three handles is under the pointer; −1 for none. */
  function handleUnder(p: ViewPointer): number {
    const f = frame(),
      v = view.viewport;
    if (!f || !v || !host.enabled()) return -1;
    return host.arrows()
      ? arrowUnder(v, p.x, p.y, f.at, f.axes, pixels(v, ARROW_PIXELS))
      : ringUnder(v, p.x, p.y, f.at, f.axes, pixels(v, RING_PIXELS));
  }
  return { world, frame, handleUnder };
}

/** Joints to pick, rings to turn by and arrows to move by, the same in Rig and Animate. */
export function boneHandles(host: HandleHost): BoneHandles {
  const view = useView();
  const { world, frame, handleUnder } = useHandleFrame(host);
  const hot = ref(-1);
  let drag: BoneDrag | null = null;

  function grip(p: ViewPointer, axis: number): BoneDrag {
    const { bone, at, axes } = frame()!;
    const held = { bone, at, dir: axes[axis]!, axis };
    if (host.arrows()) return arrowDrag(held, host.step?.() ?? ARROW_STEP, p, host.move);
    const rest = host.project()!.rig.bones.find((b) => b.id === bone)!.rest;
    return ringDrag(held, (host.basePose().get(bone) ?? rest).q, p, host.turn);
  }
  const mounted = (p: ViewPointer): Mount | null => {
    const project = host.project();
    return view.viewport && project ? mountUnder(view.viewport, p, project) : null;
  };
  const pointer: PointerUser = {
    down(p) {
      const axis = handleUnder(p);
      if (axis >= 0) {
        drag = grip(p, axis);
        hot.value = axis;
        return true;
      }
      const project = host.project();
      const joint = view.viewport && project ? jointUnder(view.viewport, p, world(), project) : null;
      if (joint === null) return false;
      host.select(joint);
      return true;
    },
    move(p) {
      if (drag) {
        if (drag.follow(p)) drag.tell(false);
        return;
      }
      hot.value = handleUnder(p);
      if (view.viewport) view.viewport.canvas.style.cursor = hot.value >= 0 ? 'grab' : '';
    },
    up() {
      const held = drag;
      drag = null;
      hot.value = -1;
      if (held?.idle) host.cancel();
      else held?.tell(true);
    },
    click(p) {
      const bone = mounted(p)?.bone;
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
  function joints(p: Project): JointMark[] {
    const w = world(),
      controls = steeringBones(p);
    return p.rig.bones.map((b) => ({
      at: originOf(w.get(b.id)!),
      parent: b.parent === null ? null : originOf(w.get(b.parent)!),
      selected: b.id === host.selected(),
      side: b.side,
      control: controls.has(b.id),
    }));
  }
  return {
    pointer,
    overlay() {
      void view.cameraTick;
      const p = host.project(),
        v = view.viewport;
      if (!p || !v) return { joints: [], rings: null, arrows: null };
      const f = host.enabled() ? frame() : null;
      const shown = { joints: joints(p), rings: null, arrows: null };
      if (!f) return shown;
      const { at, axes } = f;
      return host.arrows()
        ? { ...shown, arrows: { at, axes, length: pixels(v, ARROW_PIXELS), hot: hot.value } }
        : { ...shown, rings: { at, axes, radius: pixels(v, RING_PIXELS), hot: hot.value } };
    },
    mountUnder: (p) => mounted(p)?.id ?? null,
  };
}
