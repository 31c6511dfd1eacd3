import { type InstanceSource, pickInstance } from '@sphalerite/core/scene';
import { useInPlace } from '../../stores/in-place';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import type { PointerUser, ViewPointer } from '../../viewport/view-input';
import type { BuildParts } from './build-parts';
import { useBuild } from './build-state';
import { useColours } from './colours/colours-state';
import { lookUnder } from './colours/side-by-side';
import { rulerText } from './measure-lines';
import type { SelectMode } from './selection/chosen-cells';
import { useSelection } from './selection/selection-state';

/** What the pointer does in Build: handles first, then the gradient, the ruler, what floats, and the tool in hand. */
export function buildPointer({ strokes, handles, hand, gradient }: BuildParts, cancel: () => void): PointerUser {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const colours = useColours();
  const view = useView();
  const inPlace = useInPlace();
  function selectMode({ ctrl, alt }: ViewPointer): SelectMode {
    if (ctrl) return alt ? 'common' : 'add';
    return alt ? 'remove' : selection.mode;
  }

  /** Between two samples whose cells do not touch, more are taken, so that a quick stroke has no gaps where cubes are small. */
  function fillGap(a: ViewPointer, b: ViewPointer, depth: number): void {
    const v = view.viewport;
    if (!v || depth > 4 || Math.hypot(b.x - a.x, b.y - a.y) < 0.6) return;
    const pa = hand.pickAt(a).pick,
      pb = hand.pickAt(b).pick;
    if (!pa || !pb || Math.max(...pa.cell.map((c, i) => Math.abs(c - pb.cell[i]!))) <= 1) return;
    const x = (a.x + b.x) / 2,
      y = (a.y + b.y) / 2;
    const mid: ViewPointer = { ...b, x, y, ray: v.rayAt(x, y) };
    fillGap(a, mid, depth + 1);
    strokes.feed(hand.pickAt(mid).event, false);
    fillGap(mid, b, depth + 1);
    hand.pickAt(b);
  }

  /** What stands beside that a click beside the part on the bench means; of another project none. */
  function neighbourUnder(p: ViewPointer): InstanceSource | null {
    const own = inPlace.seen?.own,
      mine = session.part?.id ?? '';
    const hit =
      view.viewport &&
      pickInstance(view.viewport.list, p.ray.origin, p.ray.dir, (i) => (own ? i !== own : i.source.part !== mine));
    const source = hit?.instance.source;
    return source?.part && session.project?.parts.some((o) => o.id === source.part) ? source : null;
  }

  return {
    down(p) {
      hand.lastPointer.value = p;
      if (!session.part || !session.writable) return false;
      if (!strokes.output.value.active && handles.down(p)) return true;
      if (gradient.value?.down(p)) return true;
      const { event, pick } = hand.pickAt(p);
      if (build.measuring) {
        if (!pick) return false;
        hand.ruler.value = { from: pick.cell, to: pick.cell, set: false };
        return true;
      }
      if (!strokes.output.value.active && !pick) {
        const look = lookUnder(p, session.project, colours.looks);
        if (look) colours.activate(look.id);
        return look !== null;
      }
      // A click beside what floats sets it down; it is not a stroke as well.
      if (selection.floating || selection.repeat) {
        if (selection.repeat) selection.setRepeat();
        else selection.settle();
        return true;
      }
      if (!strokes.output.value.active) {
        strokes.invert.value = p.alt && build.card.verb !== 'select';
        strokes.mode.value = selectMode(p);
      }
      strokes.feed({ ...event, type: 'down' });
      return true;
    },
    move(p, settle) {
      if (!session.part) return;
      const from = hand.lastPointer.value;
      hand.lastPointer.value = p;
      if (handles.holding) {
        handles.move(p);
        return;
      }
      if (gradient.value?.move(p)) return;
      const { event, pick } = hand.pickAt(p);
      if (hand.ruler.value && !hand.ruler.value.set) {
        if (pick) hand.ruler.value = { ...hand.ruler.value, to: pick.cell };
        view.measure = rulerText(hand.ruler.value);
        return;
      }
      if (!strokes.output.value.active) {
        hand.overHandle.value = handles.hover(p);
        strokes.invert.value = p.alt && build.card.verb !== 'select';
        if (hand.overHandle.value || selection.floating) return;
      } else if (from && (build.card.reach === 'point' || build.card.reach === 'brush')) fillGap(from, p, 0);
      strokes.feed(event, settle);
    },
    up(p) {
      if (handles.holding) {
        handles.move(p, true);
        view.measure = '';
        return;
      }
      if (gradient.value?.up(p)) return;
      if (hand.ruler.value && !hand.ruler.value.set) {
        hand.ruler.value = { ...hand.ruler.value, set: true };
        return;
      }
      if (session.part && strokes.output.value.active) strokes.feed({ ...hand.pickAt(p).event, type: 'up' });
    },
    open: (p) => void handles.carry(p),
    click(p) {
      const neighbour = neighbourUnder(p);
      if (neighbour && inPlace.seen) inPlace.go(neighbour);
      else if (neighbour) session.choose({ part: neighbour.part, layer: null });
    },
    leave() {
      hand.over.value = false;
      if (!strokes.output.value.active) {
        strokes.output.value = { ...strokes.output.value, shapes: [], face: null };
        if (!selection.preview && !colours.task && !gradient.value?.tries()) session.preview = null;
        view.cursor = '';
        view.measure = '';
      }
    },
    wheel(p) {
      if (strokes.output.value.wheel) return strokes.feed({ type: 'height', by: p.by > 0 ? -1 : 1 });
      if (!p.alt || !build.guide) return false;
      build.stepGuide(p.by > 0 ? -2 : 2);
      return true;
    },
    cancel,
  };
}
