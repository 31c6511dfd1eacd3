import { type Extent, type Vec3, boxCorners, sub, uniteExtents } from '@sphalerite/core/math';
import type { Id } from '@sphalerite/core/model';
import { instanceExtent } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import type { ViewPointer } from '../../viewport/view-input';
import type { SceneList } from './scene-list';
import { type PageFrame, useStage } from './stage-state';

/** Pixels that a frame is wide or high at least; less is a click. */
const LEAST = 5;

/** A frame drawn in the view chooses all that stands wholly in it; with Shift besides what is chosen already. */
export function useFrameChoice({ list, free }: SceneList) {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  let from: { readonly x: number; readonly y: number; readonly shift: boolean } | null = null;

  function inside({ x, y, width, height }: PageFrame): Id[] {
    const v = view.viewport;
    if (!v) return [];
    const extents = new Map<Id, Extent | null>();
    for (const i of list()) {
      const id = i.source.path[0];
      if (id && i.source.copy === 0 && free(i))
        extents.set(id, uniteExtents(extents.get(id) ?? null, instanceExtent(i)));
    }
    const onPage = v.projection();
    const within = (p: Vec3): boolean => {
      const s = onPage(p);
      return s.ahead && s.x >= x && s.x <= x + width && s.y >= y && s.y <= y + height;
    };
    return [...extents].flatMap(([id, e]) =>
      e && boxCorners({ min: e.lo, size: sub(e.hi, e.lo) }).every(within) ? [id] : [],
    );
  }
  return {
    down(p: ViewPointer): void {
      from = { x: p.x, y: p.y, shift: p.shift };
    },
    move(p: ViewPointer): boolean {
      if (!from) return false;
      stage.drawnFrame = {
        x: Math.min(from.x, p.x),
        y: Math.min(from.y, p.y),
        width: Math.abs(p.x - from.x),
        height: Math.abs(p.y - from.y),
      };
      return true;
    },
    /** Gives `click` where no frame was drawn. */
    up(): 'click' | 'frame' | null {
      if (!from) return null;
      const frame = stage.drawnFrame,
        more = from.shift;
      this.cancel();
      if (!frame || (frame.width < LEAST && frame.height < LEAST)) return 'click';
      const found = inside(frame);
      session.choose({ placement: more ? [...new Set([...session.view.chosen.placement, ...found])] : found });
      return 'frame';
    },
    cancel(): void {
      from = stage.drawnFrame = null;
    },
  };
}
