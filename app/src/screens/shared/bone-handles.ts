import {
  type Mat4,
  type Quat,
  type Vec3,
  mul,
  mulQuat,
  normalize,
  quatFromAxisAngle,
  transformDirection,
} from '@sphalerite/core/math';
import { type Mount, type Project, type Rig, sideSuffix, steeringBones } from '@sphalerite/core/model';
import { type Pose, worldMatrices } from '@sphalerite/core/rig';
import { useView } from '../../stores/view';
import { useWayBack } from '../../stores/way-back';
import { type Amount, type GizmoFrame, type GizmoMode, WORLD_AXES, placeText } from '../../tools/gizmo';
import type { JointMark, Overlay } from '../../viewport/overlay';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { useSettings } from '../../stores/settings';
import { jointsUnder, mountUnder, originOf } from './bone-picking';
import { controlPull } from './control-pull';
import { jointStack } from './joint-stack';
import { partOn } from './open-part';
import { FREE_STEPS, useGizmo } from './gizmo-control';

/** Pixels within which the pointer is right on a dot. */
const ON_DOT = 5;
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
  /** All that are chosen. */
  chosen(): readonly string[];
  /** @param more – beside those that are chosen, or no longer */
  select(bone: string, more: boolean): void;
  /** Arrows to move by, rings to turn by, or cubes to pull for the size; null while something else has the gizmo. */
  mode(): GizmoMode | null;
  /** Whether a pull on one cube counts for all axes. */
  even?(): boolean;
  enabled(): boolean;
  /** A new local rotation; `done` when the hand let go. */
  turn(bone: string, q: Quat, degrees: number, axis: number, done: boolean): void;
  /** A shift in rig space. */
  move(bone: string, delta: Vec3, done: boolean): void;
  /** The bone's local scale, and by what it grew. */
  scale(bone: string, s: Vec3, by: Amount, done: boolean): void;
  cancel(): void;
  /** What arrows move by, in project units; 0 for any length. Half a unit when missing. */
  step?(): number;
  /** Before a control is pulled by its dot. */
  pull?(): void;
}
export interface BoneHandles {
  readonly pointer: PointerUser;
  overlay(): Pick<Overlay, 'joints' | 'gizmo'>;
  /** The bone whose joint is under the pointer. */
  boneUnder(p: ViewPointer): string | null;
  /** The mount whose part is under the pointer. */
  mountUnder(p: ViewPointer): string | null;
}

type BoneLook = ReturnType<typeof useSettings>['settings']['bones'];
const lookOf = (control: boolean): BoneLook => useSettings().settings[control ? 'controls' : 'bones'];

/** How the joints of a rig are drawn: bones and controls as they are asked for, those that are chosen always. */
function jointMarks(p: Project, world: ReadonlyMap<string, Mat4>, chosen: readonly string[]): JointMark[] {
  const controls = steeringBones(p.rig);
  return p.rig.bones.flatMap((b): JointMark[] => {
    const control = controls.has(b.id),
      selected = chosen.includes(b.id),
      look = lookOf(control);
    if (look === 'hidden' && !selected) return [];
    return [
      {
        at: originOf(world.get(b.id)!),
        // A control hangs on nothing that is seen.
        parent: b.parent === null || control ? null : originOf(world.get(b.parent)!),
        selected,
        side: b.side,
        control,
        dim: look === 'dimmed',
      },
    ];
  });
}

/** The gizmo of the bone in hand. */
function boneGizmo(host: HandleHost, world: () => ReadonlyMap<string, Mat4>): ReturnType<typeof useGizmo> {
  /** The bone in hand, where its handles stand and along which axes. */
  function frame(): GizmoFrame | null {
    const bone = host.selected();
    const m = bone === null ? undefined : world().get(bone);
    if (!m || !host.enabled()) return null;
    const mode = host.mode(),
      at = originOf(m);
    if (!mode) return null;
    if (mode === 'move') return { at, axes: WORLD_AXES, modes: [mode] };
    const axes = WORLD_AXES.map((u) => normalize(transformDirection(m, u))) as unknown as GizmoFrame['axes'];
    return { at, axes, modes: [mode], even: host.even?.() ?? false };
  }
  /** The bone that is held, and how it stood. */
  let held: { bone: string; q: Quat; s: Vec3 } | null = null;
  return useGizmo({
    frame,
    steps() {
      const step = host.step?.() ?? ARROW_STEP;
      return { ...FREE_STEPS, move: [step, step, step] };
    },
    begin() {
      const bone = host.selected()!;
      const rest = host.project()!.rig.bones.find((b) => b.id === bone)!.rest;
      held = { bone, ...(host.basePose().get(bone) ?? rest) };
      return true;
    },
    change(amount, done) {
      const { bone, q, s } = held!;
      if (amount.kind === 'move') host.move(bone, amount.along, done);
      else if (amount.kind === 'scale') host.scale(bone, mul(s, amount.by), amount, done);
      else {
        const by = quatFromAxisAngle(WORLD_AXES[amount.axis], (amount.degrees * Math.PI) / 180);
        host.turn(bone, mulQuat(q, by), amount.degrees, amount.axis, done);
      }
    },
    cancel: host.cancel,
  });
}

/** Joints to pick, rings to turn by and arrows to move by, the same in Rig and Animate. */
export function boneHandles(host: HandleHost): BoneHandles {
  const view = useView();
  /** What stands now: a move of the hand asks for it several times. */
  let placed: { readonly rig: Rig; readonly pose: Pose; readonly world: Map<string, Mat4> } | null = null;
  function world(): ReadonlyMap<string, Mat4> {
    const rig = host.project()?.rig,
      pose = host.pose();
    if (!rig) return new Map();
    if (placed?.rig !== rig || placed.pose !== pose) placed = { rig, pose, world: worldMatrices(rig, pose) };
    return placed.world;
  }
  const gizmo = boneGizmo(host, world);
  const mounted = (p: ViewPointer): Mount | null => {
    const project = host.project();
    return view.viewport && project ? mountUnder(view.viewport, p, project) : null;
  };
  const pull = controlPull(host);
  /** The joints under the pointer that are seen, the one that a press takes first. */
  function under(p: ViewPointer, reach?: number): string[] {
    const project = host.project();
    if (!view.viewport || !project) return [];
    const steering = steeringBones(project.rig);
    return jointsUnder(view.viewport, p, world(), project, reach).filter(
      (b) => lookOf(steering.has(b)) !== 'hidden' || host.chosen().includes(b),
    );
  }
  const stack = jointStack();
  /** Whether the pointer is right on the dot of another joint: it is that which is meant, though a ring or an arrow lies over it. */
  function onAnother(p: ViewPointer): boolean {
    const at = host.selected(),
      own = at === null ? undefined : world().get(at);
    const v = view.viewport;
    if (!v || !own) return false;
    const middle = v.screenOf(originOf(own));
    const close = under(p, ON_DOT).some((b) => !host.chosen().includes(b));
    // In the middle of the gizmo the dots lie on one another, and nothing of it is there.
    return close && Math.hypot(middle.x - p.x, middle.y - p.y) > 2 * ON_DOT;
  }
  const names = (bones: readonly string[]): string[] => {
    const all = host.project()?.rig.bones ?? [];
    return bones.map((id) => all.find((b) => b.id === id)!).map((b) => b.name + sideSuffix(b.side));
  };
  /** Where the joint under the pointer stands, beside its name. */
  let said = false;
  function sayJoint(bone: string | null): void {
    if (bone) view.measure = `${names([bone])[0]!}  ${placeText(originOf(world().get(bone)!))}`;
    else if (said) view.measure = '';
    said = bone !== null;
  }
  const pointer: PointerUser = {
    down(p) {
      if (!onAnother(p) && gizmo.down(p)) return true;
      const joints = under(p);
      if (joints.length === 0) return false;
      const bone = stack.press(p, joints, p.ctrl ? null : host.selected());
      if (p.ctrl || bone !== host.selected()) host.select(bone, p.ctrl);
      const steers = steeringBones(host.project()!.rig).has(bone);
      if (steers && host.enabled() && !p.ctrl) pull.begin(bone, originOf(world().get(bone)!), p);
      return true;
    },
    move(p) {
      if (gizmo.move(p) || pull.move(p)) return;
      const over = !onAnother(p) && gizmo.hover(p);
      const joints = over ? [] : under(p);
      view.under = joints.length > 1 ? names(joints) : [];
      if (!over) sayJoint(joints.length === 1 ? joints[0]! : null);
      if (view.viewport) view.viewport.canvas.style.cursor = over || joints.length > 0 ? 'grab' : '';
    },
    up() {
      if (gizmo.up() || pull.up()) return stack.dragged();
      const next = stack.release();
      if (next) host.select(next, false);
    },
    click(p) {
      const bone = mounted(p)?.bone;
      if (bone) host.select(bone, p.ctrl);
    },
    open(p) {
      if (!onAnother(p) && gizmo.carry(p)) return;
      const [bone] = under(p);
      const part = bone === undefined ? mounted(p)?.part : partOn(bone);
      if (part) void useWayBack().open(part);
    },
    leave() {
      gizmo.leave();
      sayJoint(null);
      view.under = [];
    },
    cancel() {
      pull.cancel();
      gizmo.cancel();
    },
  };
  return {
    pointer,
    overlay() {
      const p = host.project();
      return p && view.viewport
        ? { joints: jointMarks(p, world(), host.chosen()), gizmo: gizmo.drawn() }
        : { joints: [], gizmo: null };
    },
    boneUnder: (p) => under(p)[0] ?? null,
    mountUnder: (p) => mounted(p)?.id ?? null,
  };
}
