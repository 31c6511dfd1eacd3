import type { Project } from '@sphalerite/core/model';
import { extrudeEdit, openingEdit, placeCellsEdit, strokeEdit } from '@sphalerite/core/project';
import type { StrokeVerb } from '@sphalerite/core/sculpt';
import { useSession } from '../../../stores/session';
import type { Change } from '../../../tools/tool';
import { useBuild } from '../build-state';
import { type StrokeChange, isLarge, useChangeArguments } from './change-arguments';

/** What a tool's change would give, shown while the pointer moves. */
export function useStrokePreview() {
  const session = useSession();
  const build = useBuild();
  const args = useChangeArguments();
  /** How far the preview of a trail has come, so that only its newest dabs are drawn. */
  let drawn: { base: Project; done: number; first: unknown; preview: Project } | null = null;

  /** A trail that goes on from its last preview; null when it is another one. */
  function goneOn(c: StrokeChange, verb: StrokeVerb): { preview: Project | null } | null {
    const first = c.shapes[0];
    if (!drawn || drawn.base !== session.project || drawn.first !== first || first?.kind !== 'dabs') return null;
    if (c.shapes.length < drawn.done) return null;
    const shapes = c.shapes.slice(drawn.done);
    if (shapes.length === 0) return drawn;
    const preview = session.tryOn(drawn.preview, strokeEdit, args.stroke({ ...c, verb, shapes }));
    if (preview) drawn = { ...drawn, done: c.shapes.length, preview };
    return { preview };
  }
  function stroke(c: StrokeChange): Project | null {
    const { verb } = c;
    if (verb === 'select') return null;
    if (build.strokeTarget?.takes(verb)) return build.strokeTarget.tryOut(args.cells(c), verb);
    const trail = goneOn(c, verb);
    if (trail) return trail.preview;
    const preview = session.tryEdit(strokeEdit, args.stroke({ ...c, verb }), true);
    drawn = preview && { base: session.project!, done: c.shapes.length, first: c.shapes[0], preview };
    return preview;
  }
  /** The project with the change made; null when nothing of it is shown. `pulled`: cubes of the face in hand. */
  function outcome(c: Change, pulled: number): Project | null {
    if (isLarge(c, pulled)) return null;
    switch (c.kind) {
      case 'stroke':
        return stroke(c);
      case 'extrude':
        return session.tryEdit(extrudeEdit, { ...args.target(), extrusion: c.extrusion }, true);
      case 'opening': {
        const opening = { ...args.target(), opening: c.opening, symmetry: build.symmetry };
        return session.tryEdit(openingEdit, opening, true);
      }
      case 'stamp':
        return c.verb === 'add' ? session.tryEdit(placeCellsEdit, args.stamp(c), true) : null;
      case 'region':
        return null;
    }
  }
  const forget = (): void => {
    drawn = null;
  };
  return { outcome, forget };
}
