import {
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  mulQuat,
  quatFromAxisAngle,
  relativeTransform,
  transformPoint,
} from '@sphalerite/core/math';
import { type Lamp, type Scene, worldOfPlacement } from '@sphalerite/core/model';
import { changeLampsEdit } from '@sphalerite/core/project';
import type { PlacedLamp } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { type Amount, type GizmoFrame, shiftOf } from '../../tools/gizmo';
import type { Overlay } from '../../viewport/overlay';
import type { ViewPointer } from '../../viewport/view-input';
import type { ViewLamp } from '../../viewport/viewport';
import type { SceneList } from './scene-list';
import { useStage } from './stage-state';

/** Pixels within which a lamp is meant. */
const NEAR = 12;

/** Lamps in the view: where they shine, which one a click means, and what the gizmo makes of the one in hand. */
export function useLamps({ lamps: placed }: SceneList) {
  const session = useSession();
  const view = useView();
  const stage = useStage();
  /** The lamp in hand; null while a placement is, or nothing. */
  const inHand = (): Lamp | null =>
    (session.hand.placement === null && shownScene()?.lamps.find((l) => l.id === session.hand.lamp)) || null;
  const shownScene = (): Scene | null => session.shown?.scenes.find((s) => s.id === session.scene?.id) ?? null;
  const above = (scene: Scene, lamp: Lamp): Transform =>
    lamp.parent === null ? TRANSFORM_IDENTITY : worldOfPlacement(scene, lamp.parent);
  const worldOf = (scene: Scene, lamp: Lamp): Transform =>
    composeTransform(above(scene, lamp), { t: lamp.t, q: lamp.q, s: [1, 1, 1] });

  let lit: readonly PlacedLamp[] | null = null,
    lights: readonly ViewLamp[] = [];
  return {
    inHand,
    /** Where the gizmo stands on the one in hand. */
    at(): Vec3 | null {
      const scene = shownScene(),
        lamp = inHand();
      return scene && lamp && worldOf(scene, lamp).t;
    },
    /** What a drag of the gizmo makes of it. */
    change(frame: GizmoFrame, amount: Amount, done: boolean): void {
      const scene = session.scene!,
        lamp = scene.lamps.find((l) => l.id === session.hand.lamp);
      if (!lamp) return;
      const w = worldOf(scene, lamp);
      let to = w,
        more: Partial<Lamp> = {};
      if (amount.kind === 'move') to = { ...w, t: add(w.t, shiftOf(frame, amount.along)) };
      else if (amount.kind === 'turn')
        to = { ...w, q: mulQuat(quatFromAxisAngle(frame.axes[amount.axis], (amount.degrees * Math.PI) / 180), w.q) };
      else more = { size: Math.max(0.1, lamp.size * Math.max(...amount.by)) };
      const { t, q } = relativeTransform(above(scene, lamp), to);
      const args = { scene: scene.id, changes: [{ id: lamp.id, change: { t, q, ...more } }] };
      if (done) session.apply(changeLampsEdit, args);
      else session.preview = session.tryEdit(changeLampsEdit, args, true);
    },
    /** Chooses the lamp under the pointer; gives whether there was one. */
    down(p: ViewPointer): boolean {
      const v = view.viewport;
      if (!stage.lamps && !inHand()) return false;
      const near = placed()
        .filter((l) => l.copy === 0)
        .map((l) => ({ id: l.lamp.id, ...v!.screenOf(transformPoint(l.matrix, [0, 0, 0])) }))
        .filter((s) => s.ahead && Math.hypot(s.x - p.x, s.y - p.y) < NEAR);
      if (near.length === 0) return false;
      session.choose({ placement: null, lamp: near[0]!.id });
      return true;
    },
    /** A mark at each, and where the one in hand shines. */
    drawn(): Pick<Overlay, 'spots' | 'strokes'> {
      const all = placed(),
        own = inHand();
      const mine = all.find((l) => l.lamp.id === own?.id && l.copy === 0);
      return {
        spots: (own || stage.lamps ? all : []).map((l) => ({
          at: transformPoint(l.matrix, [0, 0, 0]),
          tone: 'honey' as const,
          hot: l.lamp.id === own?.id && l.copy === 0,
        })),
        strokes: mine ? rays(mine) : [],
      };
    },
    /** As the drawn view lights with them. */
    lights(): readonly ViewLamp[] {
      const now = placed();
      if (now === lit) return lights;
      lit = now;
      lights = now.map(({ lamp, matrix }) => ({
        at: transformPoint(matrix, [0, 0, 0]),
        towards: transformPoint(matrix, [0, 0, -100]),
        colour: lamp.colour,
        // Candela fall off with metres, the view with units: near enough to judge by.
        power: lamp.strength * POWER,
        cone: lamp.kind === 'point' ? null : (((lamp.kind === 'panel' ? 160 : lamp.angle) / 2) * Math.PI) / 180,
      }));
      return lights;
    },
  };
}
/** From candela to the drawn view’s light, for cubes of a few centimetres. */
const POWER = 12;

/** The rim of a cone, or the edges of a panel, ahead of a lamp. */
function rays({ lamp, matrix }: PlacedLamp): Overlay['strokes'] {
  if (lamp.kind === 'point') return [];
  const from = transformPoint(matrix, [0, 0, 0]);
  const long = 10,
    wide = lamp.kind === 'panel' ? lamp.size / 2 : Math.tan(((Math.min(lamp.angle, 170) / 2) * Math.PI) / 180) * long;
  const corners = [
    [wide, wide],
    [-wide, wide],
    [-wide, -wide],
    [wide, -wide],
  ].map(([x, y]) => transformPoint(matrix, [x!, y!, lamp.kind === 'panel' ? 0 : -long]));
  const ahead = transformPoint(matrix, [0, 0, -long]);
  return [
    ...corners.map((c, i) => ({ from: c, to: corners[(i + 1) % 4]!, tone: 'honey' as const })),
    ...(lamp.kind === 'panel' ? [] : corners.map((to) => ({ from, to, tone: 'honey' as const }))),
    { from, to: ahead, tone: 'quiet' as const },
  ];
}
