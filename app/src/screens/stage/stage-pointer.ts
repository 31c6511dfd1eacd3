import { type Vec3, mapVec, sub } from '@sphalerite/core/math';
import { findIn } from '@sphalerite/core/model';
import { duplicatePlacementsEdit } from '@sphalerite/core/project';
import { pickInstance } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { useWayBack } from '../../stores/way-back';
import { onPlane } from '../../tools/geometry';
import { amountText } from '../../tools/gizmo';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import { landing } from './landing';
import { movable, moveChosen } from './moving';
import { putDown, shownExtent } from './placing';
import type { SceneList } from './scene-list';
import { placementName } from './shown';
import { useStage } from './stage-state';

/** Chooses what is clicked, pushes it over the ground, leaves copies behind with Alt, and puts down what is taken from below. */
export function useStagePointer({ list, free }: SceneList) {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  const way = useWayBack();
  const chosen = (): readonly string[] => session.view.chosen.placement;

  /** A thing that is pushed over the ground: where the hand took it, and how far it is by now. */
  let push: { readonly from: Vec3; by: Vec3; copy: boolean } | null = null;
  const toStep = (v: number): number => (stage.step > 0 ? Math.round(v / stage.step) * stage.step : v);
  function pushTo(p: ViewPointer, done: boolean): void {
    const to = onPlane(p.ray, push!.from, [0, 1, 0]);
    if (to) push!.by = mapVec(sub(to, push!.from), (v, a) => (a === 1 ? 0 : toStep(v)));
    const { by, copy } = push!;
    const still = by.every((v) => v === 0);
    view.measure = done || still ? '' : amountText({ kind: 'move', along: by });
    if (still) {
      session.preview = null;
      return;
    }
    const scene = session.scene!;
    if (!copy) return moveChosen(scene, chosen(), (w) => ({ ...w, t: mapVec(w.t, (v, a) => v + by[a]!) }), done);
    const args = { scene: scene.id, placements: movable(scene, chosen()), shift: by, linked: true };
    if (done) session.apply(duplicatePlacementsEdit, args);
    else session.preview = session.tryEdit(duplicatePlacementsEdit, args, true);
  }
  const under = (p: ViewPointer): { id: string; at: Vec3 } | null => {
    const hit = pickInstance(list(), p.ray.origin, p.ray.dir, free),
      id = hit?.instance.source.path[0];
    return hit && id ? { id, at: mapVec(p.ray.origin, (v, a) => v + p.ray.dir[a]! * hit.t) } : null;
  };
  const put = (p: ViewPointer, shows = stage.placing): void => {
    const there = shows && session.project && landing(list(), p.ray, shownExtent(session.project, shows), stage.step);
    if (there) putDown(shows, there);
  };

  const hand: PointerUser = {
    down(p) {
      if (stage.placing) {
        put(p);
        return true;
      }
      const there = under(p);
      if (!there) return false;
      if (p.ctrl || p.shift)
        session.pick('placement', there.id, { ctrlKey: true, metaKey: false, shiftKey: false }, []);
      else if (!chosen().includes(there.id)) session.choose({ placement: there.id });
      if (session.writable && chosen().includes(there.id)) push = { from: there.at, by: [0, 0, 0], copy: p.alt };
      return true;
    },
    move(p) {
      if (push) return pushTo(p, false);
      const there = stage.placing ? null : under(p);
      const scene = session.scene;
      const at = there && scene && findIn(scene.placements, there.id);
      view.cursor = at ? placementName(session.project!, at) : '';
    },
    up(p) {
      if (!push) return;
      pushTo(p, true);
      push = null;
    },
    click() {
      if (!stage.placing) session.choose({ placement: null });
    },
    open(p) {
      const there = under(p),
        at = there && findIn(session.scene!.placements, there.id);
      if (at?.shows.kind === 'part') void way.open(at.shows.part);
    },
    leave: () => void (view.cursor = ''),
    cancel() {
      push = null;
      session.preview = null;
      view.measure = '';
    },
  };
  return {
    hand,
    put,
    get pushes(): boolean {
      return push !== null;
    },
    get copies(): boolean {
      return push?.copy ?? false;
    },
  };
}
