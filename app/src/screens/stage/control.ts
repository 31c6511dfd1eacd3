import { type Box, type Extent, MAT4_IDENTITY, sub } from '@sphalerite/core/math';
import { REST_POSE } from '@sphalerite/core/rig';
import { watch } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY, type Overlay } from '../../viewport/overlay';
import type { PointerUser } from '../../viewport/view-input';
import { gizmoFirst } from '../shared/gizmo-control';
import { copyInHand } from './copy-in-hand';
import { useLamps } from './lamp-hand';
import { useMaking } from './making-state';
import { extentOfList } from './placing';
import { useSceneList } from './scene-list';
import { stageDrops } from './stage-drops';
import { stageChips } from './stage-chips';
import { stageCommands } from './stage-commands';
import { stageReadout, stageTrail } from './stage-readout';
import { useStageGizmo } from './stage-gizmo';
import { useStagePointer } from './stage-pointer';
import { useStage } from './stage-state';

const boxOf = ({ lo, hi }: Extent): Box => ({ min: lo, size: sub(hi, lo) });

export function stageControl(): ScreenControl {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  const making = useMaking();
  const shown = useSceneList(),
    { list, free, mine } = shown;

  const lamps = useLamps(shown);
  const gizmo = useStageGizmo(shown, lamps),
    hands = useStagePointer(shown, lamps);
  const first = gizmoFirst(gizmo, hands.hand);
  const pointer: PointerUser = { ...first, open: (p) => (hands.justChosen ? hands.hand : first).open?.(p) };
  const corners = (): readonly Box[] => {
    const e = extentOfList(mine());
    return e ? [boxOf(e)] : [];
  };
  /** Handles of a path, and lamps. */
  function marks(): Pick<Overlay, 'spots' | 'strokes'> {
    const [path, lit] = [hands.path.drawn(), lamps.drawn()];
    return { spots: [...path.spots, ...lit.spots], strokes: [...path.strokes, ...lit.strokes, ...hands.push.drawn()] };
  }
  // A scene is seen whole when it is first looked at; later the camera stays where the artist left it.
  const stop = watch(
    () => [view.viewport, session.scene?.id ?? null] as const,
    ([v, id]) => {
      if (!v || !id || stage.framed === id) return;
      stage.framed = id;
      if (list().length > 0) requestAnimationFrame(() => v.frame());
    },
    { immediate: true },
  );
  const { letGo, ...drops } = stageDrops(shown);
  const commands = stageCommands({ list, mine, lamp: lamps.inHand });
  return {
    scene: () => {
      const project = session.shown;
      return (
        project && {
          project,
          pose: REST_POSE,
          list: list(),
          lamps: lamps.lights(),
          styleOf: (i) => (stage.alone === null || free(i) ? 'plain' : 'faint'),
          hurry: gizmo.holding || hands.pushes,
        }
      );
    },
    overlay: () => ({
      ...NO_OVERLAY,
      lattice: MAT4_IDENTITY,
      corners: corners(),
      gizmo: gizmo.drawn(),
      ...marks(),
    }),
    pointer,
    inHand: () => extentOfList(mine()),
    ...drops,
    trail: () => stageTrail(lamps.inHand()?.name ?? null),
    chips: () => stageChips(hands.copies),
    readout: () => stageReadout(list()),
    tools: ['stage.move', 'stage.turn', 'stage.scale', 'stage.frame', 'view.inset'],
    menu: [
      'stage.duplicate',
      'stage.own',
      'stage.stamp',
      'stage.group',
      'stage.drop',
      'stage.open',
      'stage.ship',
      'stage.remove',
    ],
    commands: [
      ...commands,
      {
        id: 'stage.cancel',
        title: 'Cancel what is under way, then let go',
        group: 'Stage',
        keys: ['Esc'],
        run() {
          if (making.kind) return making.end();
          const idle =
            stage.placing === null && stage.stamp === null && session.preview === null && view.keyUser === null;
          stage.placing = stage.stamp = null;
          pointer.cancel();
          // First from the copy to its whole, then from everything.
          if (idle && copyInHand()) stage.copy = null;
          else if (idle) session.choose({ placement: null, lamp: null });
        },
      },
    ],
    dispose() {
      stop();
      letGo();
      pointer.cancel();
      stage.placing = stage.stamp = null;
      stage.copy = null;
      making.end();
    },
  };
}
