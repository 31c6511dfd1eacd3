import { type Vec3, length, simplified, sub, wayLength } from '@sphalerite/core/math';
import { NO_VARIATION, find } from '@sphalerite/core/model';
import { type RepeatWishes, placeRepeatedEdit } from '@sphalerite/core/project';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import type { ViewPointer } from '../../viewport/view-input';
import { landing } from './landing';
import { freeLayer, mustHaveScene, putDown, shownExtent } from './placing';
import type { SceneList } from './scene-list';
import { useStage } from './stage-state';

/** Pixels that a stroke is long at least; less is a click. */
const LEAST = 14;

/** Puts down what is taken from below: one with a click, as many as have room along a stroke. */
export function useStrokePlacing({ list }: SceneList) {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  let stroke: { readonly x: number; readonly y: number; points: Vec3[]; drawn: boolean } | null = null;
  /** What stood there before the stroke: copies of its own are no ground. */
  let ground: ReturnType<typeof list> = [];

  const where = (p: ViewPointer) =>
    stage.placing && session.project
      ? landing(ground, p.ray, shownExtent(session.project, stage.placing), stage.step)
      : null;
  /** As many as stand beside each other along the way. */
  function wishes(points: readonly Vec3[]): RepeatWishes {
    const e = shownExtent(session.project!, stage.placing!),
      deep = e ? Math.max(0.5, Math.min(e.hi[0] - e.lo[0], e.hi[2] - e.lo[2])) : 1;
    const corners = simplified(points, deep / 3),
      count = Math.min(1000, Math.max(2, Math.floor(wayLength(corners) / deep) + 1));
    return { kind: 'path', count, points: corners, closed: false, facing: true, vary: NO_VARIATION };
  }
  function along(points: readonly Vec3[], done: boolean): void {
    const scene = session.scene;
    if (!scene || !stage.placing) return;
    const wanted = wishes(points);
    const args = {
      scene: scene.id,
      placement: { shows: stage.placing, t: points[0]!, layer: freeLayer(scene) },
      wishes: wanted,
    };
    view.measure = done || wanted.kind !== 'path' ? '' : `${wanted.count} along the stroke`;
    if (!done) session.preview = session.tryEdit(placeRepeatedEdit, args, true);
    else
      session.apply(placeRepeatedEdit, args, (p) => ({
        placement: find(p.scenes, scene.id)!.placements.flat().at(-1)!.id,
      }));
  }
  return {
    down(p: ViewPointer): boolean {
      if (!stage.placing || !mustHaveScene()) return false;
      ground = list();
      const there = where(p);
      if (there) stroke = { x: p.x, y: p.y, points: [there.t], drawn: false };
      return true;
    },
    move(p: ViewPointer, settle: boolean): boolean {
      if (!stroke) return false;
      stroke.drawn ||= Math.hypot(p.x - stroke.x, p.y - stroke.y) > LEAST;
      const there = stroke.drawn ? where(p) : null;
      if (there && length(sub(there.t, stroke.points.at(-1)!)) > 0.5) stroke.points.push(there.t);
      if (settle && stroke.points.length > 1) along(stroke.points, false);
      return true;
    },
    up(p: ViewPointer): boolean {
      if (!stroke) return false;
      const { points } = stroke,
        there = where(p);
      stroke = null;
      if (points.length > 1) along(points, true);
      else if (there) putDown(stage.placing!, there);
      return true;
    },
    cancel(): void {
      stroke = null;
    },
  };
}
