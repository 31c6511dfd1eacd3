import { mapVec, transformPoint } from '@sphalerite/core/math';
import { type Part, must, pivotPoint } from '@sphalerite/core/model';
import { mirrorBoxes } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { type Mark, NO_OVERLAY, type Overlay } from '../../viewport/overlay';
import type { BuildParts } from './build-parts';
import { useBuild } from './build-state';
import { drops, rulerLines } from './measure-lines';
import { figureBeside } from '../shared/scale-figure';
import { useHollow } from './hollow/hollow-state';
import { useSelection } from './selection/selection-state';
import { extentOf } from '../../stores/ship-counts';
import { PLANE_AXIS } from './reference-outline';
import { lostCells, useTouchedCells } from './touched-cells';

/** What is drawn over the cubes in Build: guides and handles, what is selected or floats, and what the tool would touch. */
export function buildOverlay({ matrix, strokes, handles, tints, hand, gradient, apart }: BuildParts): () => Overlay {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const hollow = useHollow();
  const { settings } = useSettings();
  const { erasing, touchedFaces, touchedCells } = useTouchedCells({ strokes, hand });
  const floatingSet = computed(() => (selection.floating ? CellSet.filled(selection.floating.grid) : null));

  function pictures(part: Part): Overlay['pictures'] {
    const { min } = part.bounds;
    const depth = { side: min[0] - 0.02, top: min[1] + 0.02, front: min[2] - 0.02 };
    return (session.project?.references ?? [])
      .filter((r) => r.part === part.id && !r.hidden)
      .map(({ blob, plane, at, size, opacity }) => ({
        image: must(session.project!.blobs, blob, 'picture'),
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
      floor: part.layers.every((l) => l.grid.count === 0) ? part.bounds : null,
      corners: selection.box ? [selection.box] : [],
      cut: build.limit,
      guide: build.guide,
      pictures: pictures(part),
      figure: figureBeside(settings.figure, p && extentOf(p), p?.metresPerUnit ?? 0.05),
      spots: [...handles.spots(), ...(gradient.value?.spots() ?? [])],
      gizmo: handles.gizmo(),
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
    const marks: Mark[] = [...tints.marks.value.marks, ...hollow.marks, ...(apart.value?.marks ?? [])];
    const floats = selection.floating;
    if (floats)
      marks.push(
        { set: floatingSet.value!, tone: 'honey', fill: 0.16, bare: true },
        ...lostCells(floatingSet.value!, part.bounds, 0.5),
      );
    else if (selection.selected) marks.push({ set: selection.selected, tone: 'honey', fill: 0.3, bare: true });
    return marks;
  }

  /** The planes and points that go with the hand. */
  function guided(quiet: Overlay, part: Part): Overlay {
    const { radial } = build;
    const middle = mapVec(build.middles, (h) => h / 2);
    // As it is dragged.
    const shown = session.shown?.parts.find((o) => o.id === part.id) ?? part;
    const pivot = transformPoint(matrix.value, pivotPoint(shown));
    return {
      ...quiet,
      mirror: build.mirror,
      cursor: build.cursor,
      spin: radial ? { axis: radial.axis, at: middle, count: radial.count } : null,
      joints: settings.pivot
        ? [...quiet.joints, { at: pivot, parent: null, selected: true, side: part.side }]
        : quiet.joints,
    };
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
      const mark: Mark = erasing()
        ? { set, tone: 'danger', fill: 0.55, hatched: true }
        : { set, tone: 'honey', fill: 0.25 };
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
