import { type Vec3, add, scale } from '@sphalerite/core/math';
import { type Id, findIn, placementName } from '@sphalerite/core/model';
import { gather, pickInstance } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { landing } from './landing';
import { copyInHand } from './copy-in-hand';
import { useFrameChoice } from './frame-choice';
import { useMaking } from './making-state';
import type { useLamps } from './lamp-hand';
import { openInPlace } from './open-in-place';
import { usePathHandles } from './path-handles';
import { mustHaveScene } from './placing';
import type { SceneList } from './scene-list';
import { usePush } from './push';
import { useStrokePlacing } from './stroke-placing';
import { putStamp, stampExtent } from './stamping';
import { useStage } from './stage-state';

/** Milliseconds that two clicks are apart at most. */
const DOUBLE_CLICK = 700;

/** Chooses what is clicked, or in a second click one copy of its repeat, pushes it over the ground, leaves copies behind with Alt, and puts down what is taken from below. */
export function useStagePointer(shown: SceneList, lamps: ReturnType<typeof useLamps>) {
  const { list, free } = shown;
  const path = usePathHandles(),
    strokes = useStrokePlacing(shown),
    frame = useFrameChoice(shown),
    push = usePush(shown);
  const session = useSession();
  const stage = useStage();
  const making = useMaking();
  const view = useView();
  const chosen = (): readonly string[] => session.view.chosen.placement;

  /** What stands there without what is about to be made. */
  const ground = () =>
    session.project && session.scene ? gather(session.project, { of: 'scene', scene: session.scene.id }) : [];
  const under = (p: ViewPointer): { id: string; copy: number; at: Vec3 } | null => {
    const hit = pickInstance(list(), p.ray.origin, p.ray.dir, free),
      source = hit?.instance.source,
      id = source?.path[0];
    return hit && source && id ? { id, copy: source.copy, at: add(p.ray.origin, scale(p.ray.dir, hit.t)) } : null;
  };
  /** What is repeated of what a copy shows: it, or what it hangs on. */
  function repeated(id: Id): Id {
    const scene = session.scene!,
      own = new Set(scene.repeats.map((r) => r.placement));
    for (let at: Id | null = id; at; at = findIn(scene.placements, at)?.parent ?? null) if (own.has(at)) return at;
    return id;
  }
  /** When something was chosen last: the gizmo came under the hand then, and no double click can have meant it. */
  let chosenAt = -Infinity;
  /** Chooses as a click does; a copy comes by itself when its whole is chosen already. */
  function choose({ id, copy }: { readonly id: Id; readonly copy: number }, p: ViewPointer): void {
    const whole = copy > 0 ? repeated(id) : id,
      alone = chosen().length === 1 && chosen()[0] === whole;
    if (!chosen().includes(whole)) chosenAt = performance.now();
    if (p.ctrl || p.shift) {
      stage.copy = null;
      session.pick('placement', whole, { ctrlKey: true, metaKey: false, shiftKey: false }, []);
    } else if (copy > 0 && alone) stage.copy = { placement: whole, copy };
    else {
      stage.copy = null;
      if (!chosen().includes(whole)) session.choose({ placement: whole });
    }
  }

  const hand: PointerUser = {
    down(p) {
      if (making.kind) {
        const there = landing(ground(), p.ray, null, stage.step);
        if (there) making.place = { t: there.t, q: there.q };
        return true;
      }
      if (stage.stamp) {
        const there = mustHaveScene() && landing(list(), p.ray, stampExtent(stage.stamp), stage.step);
        if (there) putStamp(stage.stamp, there);
        return true;
      }
      if (strokes.down(p) || path.down(p) || (!p.ctrl && lamps.down(p))) return true;
      const there = under(p);
      if (stage.handle === 'frame' || (p.ctrl && !there)) {
        frame.down(p);
        return true;
      }
      if (!there) return false;
      choose(there, p);
      if (session.writable && chosen().includes(there.copy > 0 ? repeated(there.id) : there.id))
        push.begin(there.at, p.alt && !copyInHand());
      return true;
    },
    move(p, settle) {
      if (strokes.move(p, settle) || frame.move(p)) return;
      if (push.move(p) || path.move(p)) return;
      const there = stage.placing || stage.stamp ? null : under(p);
      const scene = session.scene;
      const at = there && scene && findIn(scene.placements, there.id);
      view.cursor = at ? placementName(session.project!, at) : '';
    },
    up(p) {
      if (strokes.up(p) || path.up(p)) return;
      const framed = frame.up(),
        there = framed === 'click' ? under(p) : null;
      if (there) choose(there, p);
      else if (framed === 'click' && !p.shift) session.choose({ placement: null });
      if (!framed) push.up(p);
    },
    click() {
      if (stage.placing) return;
      stage.copy = null;
      session.choose({ placement: null, lamp: null });
    },
    open(p) {
      const hit = pickInstance(list(), p.ray.origin, p.ray.dir, free);
      if (hit) openInPlace(hit.instance.source);
    },
    leave: () => void (view.cursor = ''),
    cancel() {
      push.cancel();
      strokes.cancel();
      path.cancel();
      frame.cancel();
      session.preview = null;
      view.measure = '';
    },
  };
  return {
    hand,
    path,
    push,
    /** Whether the first click of a double click chose what is under it. */
    get justChosen(): boolean {
      return performance.now() - chosenAt < DOUBLE_CLICK;
    },
    get pushes(): boolean {
      return push.holding || path.holding;
    },
    get copies(): boolean {
      return push.copies;
    },
  };
}
