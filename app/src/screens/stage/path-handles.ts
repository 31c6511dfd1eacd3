import {
  type Mat4,
  type Vec3,
  MAT4_IDENTITY,
  add,
  invertMat,
  lerp,
  mapVec,
  matrixOf,
  sub,
  transformPoint,
} from '@sphalerite/core/math';
import { type Placement, type Repeat, type Scene, findIn, worldOfPlacement } from '@sphalerite/core/model';
import { type RepeatWishes, repeatEdit } from '@sphalerite/core/project';
import { ref } from 'vue';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { onPlane } from '../../tools/geometry';
import { amountText } from '../../tools/gizmo';
import type { Overlay } from '../../viewport/overlay';
import type { ViewPointer } from '../../viewport/view-input';
import { useStage } from './stage-state';

type Path = Extract<Repeat, { kind: 'path' }>;
/** Pixels within which a handle is meant. */
const NEAR = 11;

/** From the space that a placement stands in to the world. */
const aboveOf = (scene: Scene, p: Placement): Mat4 =>
  p.parent === null ? MAT4_IDENTITY : matrixOf(worldOfPlacement(scene, p.parent));

/**
 * The corners of a path as handles in the view: pushed over the ground, taken away with Ctrl, and begun between two others. The first one
 * is the placement itself, which the gizmo moves.
 */
export function usePathHandles() {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  /** The handle under the pointer: a corner, or half a step on the middle between two. */
  const hot = ref<number | null>(null);
  let held: { readonly at: number; readonly points: readonly Vec3[]; readonly from: Vec3 } | null = null;

  function path(): { readonly repeat: Path; readonly points: Vec3[] } | null {
    const scene = session.shown?.scenes.find((s) => s.id === session.scene?.id),
      p = scene && session.placement && findIn(scene.placements, session.placement.id),
      repeat = p && scene.repeats.find((r) => r.placement === p.id);
    if (!scene || !p || repeat?.kind !== 'path' || stage.placing || stage.copy || !session.writable) return null;
    const points = repeat.points.map((at) => transformPoint(aboveOf(scene, p), add(p.t, sub(at, repeat.points[0]!))));
    return { repeat, points };
  }
  const toStep = (v: number): number => (stage.step > 0 ? Math.round(v / stage.step) * stage.step : v);
  /** All handles, the corners in whole numbers. */
  const handles = (points: readonly Vec3[], closed: boolean): { at: number; p: Vec3 }[] => [
    ...points.slice(1).map((p, i) => ({ at: i + 1, p })),
    ...points.slice(closed ? 0 : 1).map((p, i) => {
      const k = closed ? i : i + 1;
      return {
        at: closed ? k + 0.5 : k - 0.5,
        p: closed ? lerp(p, points[(k + 1) % points.length]!, 0.5) : lerp(points[k - 1]!, p, 0.5),
      };
    }),
  ];
  function under(p: ViewPointer): number | null {
    const now = path(),
      v = view.viewport;
    if (!now || !v) return null;
    const near = handles(now.points, now.repeat.closed)
      .map(({ at, p: place }) => ({ at, ...v.screenOf(place) }))
      .filter((s) => s.ahead && Math.hypot(s.x - p.x, s.y - p.y) < NEAR)
      .sort((a, b) => Math.hypot(a.x - p.x, a.y - p.y) - Math.hypot(b.x - p.x, b.y - p.y));
    return near[0]?.at ?? null;
  }
  /** The path through places of the world, the first of which stands for the placement. */
  function wish(points: readonly Vec3[], done: boolean): void {
    const scene = session.scene!,
      p = session.placement!,
      { repeat } = path()!;
    const back = invertMat(aboveOf(scene, p));
    const { id: _id, placement, exceptions: _kept, ...wishes } = repeat;
    const args = {
      scene: scene.id,
      placement,
      wishes: { ...wishes, points: points.map((w) => transformPoint(back, w)) } as RepeatWishes,
    };
    if (done) session.apply(repeatEdit, args);
    else session.preview = session.tryEdit(repeatEdit, args, true);
  }
  function follow(p: ViewPointer, done: boolean): void {
    const { at, points, from } = held!,
      to = onPlane(p.ray, from, [0, 1, 0]);
    const by = mapVec(to ? sub(to, from) : [0, 0, 0], (v, a) => (a === 1 ? 0 : toStep(v)));
    view.measure = done ? '' : amountText({ kind: 'move', along: by });
    if (by.some((v) => v !== 0)) wish(points.with(at, add(from, by)), done);
    else session.preview = null;
  }
  return {
    down(p: ViewPointer): boolean {
      const at = under(p),
        now = path();
      if (at === null || !now) return false;
      const whole = Number.isInteger(at);
      if (whole && p.ctrl) {
        if (now.points.length > 2) wish(now.points.toSpliced(at, 1), true);
        return true;
      }
      const index = whole ? at : Math.floor(at) + 1,
        from = whole ? now.points[at]! : handles(now.points, now.repeat.closed).find((h) => h.at === at)!.p;
      held = { at: index, points: whole ? now.points : now.points.toSpliced(index, 0, from), from };
      return true;
    },
    move(p: ViewPointer): boolean {
      if (held) follow(p, false);
      else hot.value = under(p);
      return held !== null || hot.value !== null;
    },
    up(p: ViewPointer): boolean {
      if (!held) return false;
      follow(p, true);
      held = null;
      return true;
    },
    cancel(): void {
      held = hot.value = null;
    },
    get holding(): boolean {
      return held !== null;
    },
    drawn(): Pick<Overlay, 'spots' | 'strokes'> {
      const now = path();
      if (!now) return { spots: [], strokes: [] };
      const { points, repeat } = now,
        round = repeat.closed ? [...points, points[0]!] : points;
      return {
        spots: handles(points, repeat.closed).map(({ at, p }) => ({
          at: p,
          tone: Number.isInteger(at) ? ('honey' as const) : ('quiet' as const),
          hot: hot.value === at,
        })),
        strokes: round.slice(1).map((to, i) => ({ from: round[i]!, to, tone: 'honey' as const })),
      };
    },
  };
}
