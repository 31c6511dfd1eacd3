import { type Box, boxContains, boxVolume, intersectBoxes, transformPoint, mapVec } from '@sphalerite/core/math';
import { type Part, pivotPoint } from '@sphalerite/core/model';
import { faceRegion, mirrorBoxes, mirrorFaces, shapeBox, strokeCells } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { type Mark, NO_OVERLAY, type Overlay } from '../../viewport/overlay';
import type { BuildParts } from './build-parts';
import { useBuild } from './build-state';
import { drops, rulerLines } from './measure-lines';
import { figureBeside } from './scale-figure';
import { useSelection } from './selection/selection-state';
import { LARGE } from './strokes/change-arguments';
import { extentOf } from './target-meter';
import { PLANE_AXIS } from './tints';

/** What is drawn over the cubes in Build: guides and handles, what is selected or floats, and what the tool would touch. */
export function buildOverlay({ matrix, strokes, handles, tints, hand, gradient, apart }: BuildParts): () => Overlay {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const { settings } = useSettings();
  const floatingSet = computed(() => (selection.floating ? CellSet.filled(selection.floating.grid) : null));

  /** Plain boxes with their mirror images, when that is all there is to show; they cost nothing however large. */
  const hoveredBoxes = computed<Box[] | null>(() => {
    const { shapes } = strokes.output.value;
    if (build.radial || shapes.length === 0 || shapes.length > 32) return null;
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
    return strokeCells(out.shapes, build.symmetry, {
      min: [part.bounds.min[0] - 300, part.bounds.min[1] - 300, part.bounds.min[2] - 300],
      size: [1100, 1100, 1100],
    });
  });

  const erasing = (): boolean => {
    const { verb, reach } = build.card;
    const inverted = strokes.invert.value && (verb === 'add' || verb === 'erase');
    return (verb === 'erase') !== inverted && reach !== 'extrude';
  };
  const tone = (): Mark['tone'] => (erasing() ? 'danger' : build.card.verb === 'select' ? 'verdigris' : 'honey');

  function pictures(part: Part): Overlay['pictures'] {
    const { min } = part.bounds;
    const depth = { side: min[0] - 0.02, top: min[1] + 0.02, front: min[2] - 0.02 };
    return (session.project?.references ?? [])
      .filter((r) => r.part === part.id && !r.hidden)
      .map(({ image, plane, at, size, opacity }) => ({
        image,
        axis: PLANE_AXIS[plane],
        depth: depth[plane],
        at,
        size,
        opacity,
      }));
  }

  /** What stands there whether or not the hand is over the view. */
  function still(part: Part): Overlay {
    const p = session.project;
    return {
      ...NO_OVERLAY,
      lattice: matrix.value,
      bounds: part.bounds,
      cut: build.limit,
      guide: build.guide,
      pictures: pictures(part),
      figure: figureBeside(settings.figure, p && extentOf(p), p?.metresPerUnit ?? 0.05),
      spots: [...handles.spots(), ...(gradient.value?.spots() ?? [])],
      arrows: handles.arrows(),
      joints: (apart.value?.active ? apart.value.joints : []).map((at) => ({
        at: transformPoint(matrix.value, at),
        parent: null,
        selected: false,
        side: 'centre' as const,
      })),
    };
  }

  /** Tints, and what is selected or floats. */
  function standingMarks(part: Part): Mark[] {
    const marks: Mark[] = [...tints.marks.value.marks, ...(apart.value?.marks ?? [])];
    const floats = selection.floating;
    if (floats)
      marks.push(
        { set: floatingSet.value!, tone: 'honey', fill: 0.16 },
        { set: [floats.grid.bounds], tone: 'honey', fill: 0, through: true },
        ...lost(floatingSet.value!, part.bounds, 0.5),
      );
    else if (selection.selected) marks.push({ set: selection.selected, tone: 'honey', fill: 0.26 });
    return marks;
  }

  /** What would be cut off, in the warning tint. */
  function lost(set: CellSet, bounds: Box, fill: number): Mark[] {
    const outside = set.minus(set.within(intersectBoxes(set.box, bounds)));
    return outside.isEmpty || build.growVolume ? [] : [{ set: outside, tone: 'danger', fill }];
  }

  /** The planes and points that go with the hand. */
  function guided(quiet: Overlay, part: Part): Overlay {
    const { radial } = build;
    const middle = mapVec(build.middles, (h) => h / 2);
    const pivot = transformPoint(matrix.value, pivotPoint(part));
    return {
      ...quiet,
      mirror: build.mirror,
      cursor: build.cursor,
      spin: radial ? { axis: radial.axis, at: middle, count: radial.count } : null,
      joints: [...quiet.joints, { at: pivot, parent: null, selected: true, side: part.side }],
    };
  }

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
      return [{ set: boxes, tone: tone(), fill: shown && session.preview ? 0 : 0.25 }];
    const set = hovered.value;
    if (!set || set.isEmpty) return [];
    const spill = lost(set, part.bounds, 0.45);
    const inside = spill.length > 0 ? set.within(part.bounds) : set;
    return [{ set: inside, tone: tone(), fill: shown && out.preview ? 0 : 0.25 }, ...spill];
  }

  return () => {
    const part = session.part;
    if (!part) return NO_OVERLAY;
    const marks = standingMarks(part);
    const quiet: Overlay = { ...still(part), marks };
    if (gradient.value?.active()) return { ...quiet, strokes: gradient.value.strokes() };
    if (!hand.handCame.value && !build.cursor) return quiet;
    const over = guided(quiet, part);
    const ruler = hand.ruler.value;
    if (ruler) {
      const ends = CellSet.ofCells([ruler.from, ruler.to]);
      const mark: Mark = { set: ends, tone: 'verdigris', fill: 0.4, through: true };
      return { ...over, marks: [...marks, mark], strokes: rulerLines(ruler) };
    }
    if (hand.cursorBox.value) {
      const set = [...mirrorBoxes([hand.cursorBox.value], build.mirror)];
      const mark: Mark = { set, tone: erasing() ? 'danger' : 'honey', fill: 0.25 };
      return { ...over, erasing: erasing(), marks: [...marks, mark] };
    }
    if (!hand.over.value || hand.overHandle.value || selection.floating) return over;
    const faces = touchedFaces();
    if (faces) return { ...over, faces };
    const cell = hand.hoverCell.value;
    const strokesShown = cell ? drops(cell, build.limit ?? part.bounds).lines : [];
    const touched = touchedCells(part);
    return touched.length === 0
      ? { ...over, strokes: strokesShown }
      : { ...over, erasing: erasing(), strokes: strokesShown, marks: [...marks, ...touched] };
  };
}
