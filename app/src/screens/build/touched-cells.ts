import { type Box, boxContains, boxVolume, intersectBoxes, mapVec } from '@sphalerite/core/math';
import type { Part } from '@sphalerite/core/model';
import { faceRegion, mirrorBoxes, mirrorFaces, shapeBox, strokeCells } from '@sphalerite/core/sculpt';
import { type CellSet } from '@sphalerite/core/voxel';
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import type { Mark, Overlay } from '../../viewport/overlay';
import type { BuildParts } from './build-parts';
import { useBuild } from './build-state';
import { LARGE } from './strokes/change-arguments';

/** Boxes drawn as boxes; more are drawn as cells. */
const MOST_BOXES = 32;
/** Cubes outside the volume that a warning shows. */
const AROUND = 300;

/** What would be cut off, in the warning tint; nothing while the volume grows to fit. */
export function lostCells(set: CellSet, bounds: Box, fill: number): Mark[] {
  const outside = set.minus(set.within(intersectBoxes(set.box, bounds)));
  return outside.isEmpty || useBuild().grows ? [] : [{ set: outside, tone: 'danger', fill }];
}

/** What the tool under the hand would touch: faces, boxes or cells. */
export function useTouchedCells({ strokes, hand }: Pick<BuildParts, 'strokes' | 'hand'>) {
  const session = useSession();
  const build = useBuild();
  /** Plain boxes with their mirror images, when that is all there is to show; they cost nothing however large. */
  const hoveredBoxes = computed<Box[] | null>(() => {
    const { shapes } = strokes.output.value;
    if (build.radial || shapes.length === 0 || shapes.length > MOST_BOXES) return null;
    // Very large shapes are shown by their box.
    const boxes = shapes.flatMap((s) =>
      s.kind === 'box' && !s.hollow ? [s.box] : boxVolume(shapeBox(s)) > LARGE ? [shapeBox(s)] : [],
    );
    return boxes.length === shapes.length ? [...mirrorBoxes(boxes, build.mirror)] : null;
  });
  const hovered = computed<CellSet | null>(() => {
    const out = strokes.output.value,
      part = session.part;
    if (!part || out.shapes.length === 0) return null;
    // Outside the volume too, so that the warning shows what would be lost.
    const { min, size } = part.bounds;
    const around = { min: mapVec(min, (v) => v - AROUND), size: mapVec(size, (v) => v + 2 * AROUND) };
    return strokeCells(out.shapes, build.symmetry, around);
  });

  const erasing = (): boolean => {
    const { verb, reach } = build.card;
    const inverted = strokes.invert.value && (verb === 'add' || verb === 'erase');
    return (verb === 'erase') !== inverted && reach !== 'extrude';
  };
  const tone = (): Mark['tone'] => (erasing() ? 'danger' : build.card.verb === 'select' ? 'verdigris' : 'honey');

  /** How touched cells are marked; those that show themselves already only by their outline. */
  const look = (outlined: boolean): Omit<Mark, 'set'> =>
    erasing() ? { tone: 'danger', fill: 0.55, hatched: true } : { tone: tone(), fill: outlined ? 0 : 0.25 };

  /** The faces that the tool under the hand would touch, when it touches faces; null else. */
  function touchedFaces(): Overlay['faces'] | null {
    const out = strokes.output.value;
    const { card, seen, mirror } = build;
    if (out.face && seen)
      return mirrorFaces(out.face.cell, out.face.normal, mirror).flatMap(({ cell, normal }) =>
        (card.reach === 'extrude' ? faceRegion(seen, cell, normal, card.face) : [cell]).map((c) => ({
          cell: c,
          normal,
        })),
      );
    const pick = hand.pickNow.value;
    // One cube under the pointer is shown by the face it would touch; more by their outline.
    const one = !out.active && pick && !pick.floor && card.reach === 'point' && card.verb === 'paint';
    return one ? mirrorFaces(pick.cell, pick.normal, mirror) : null;
  }

  /** The cells that the tool would touch; what would leave the volume in the warning tint. */
  function touchedCells(part: Part): Mark[] {
    const out = strokes.output.value;
    const boxes = hoveredBoxes.value;
    const shown = out.active && tone() === 'honey';
    // What is drawn already shows itself; then only its outline is needed.
    if (boxes && boxes.every((b) => boxContains(part.bounds, b)))
      return [{ set: boxes, ...look(shown && session.preview !== null) }];
    const set = hovered.value;
    if (!set || set.isEmpty) return [];
    const spill = lostCells(set, part.bounds, 0.45);
    const inside = spill.length > 0 ? set.within(part.bounds) : set;
    return [{ set: inside, ...look(shown && out.preview !== null) }, ...spill];
  }

  return { erasing, touchedFaces, touchedCells };
}
