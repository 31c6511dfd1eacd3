import {
  AXES,
  type Box,
  type Vec3,
  boxContains,
  boxEnd,
  boxFromCells,
  boxVolume,
  intersectBoxes,
  transformPoint,
} from '@sphalerite/core/math';
import { composite, helperCount, pivotPoint, sideSuffix } from '@sphalerite/core/model';
import { faceRegion, mirrorBoxes, mirrorFaces, shapeBox, strokeCells } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import { computed, ref, shallowRef, watch } from 'vue';
import type { ScreenControl, ViewLabel } from '../../shell/screen';
import type { Command } from '../../stores/commands';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useView } from '../../stores/view';
import { targetCell } from '../../tools/geometry';
import type { Pick, ToolEvent } from '../../tools/tool';
import { type Mark, NO_OVERLAY, type Overlay } from '../../viewport/overlay';
import { pickPart, toLattice } from '../../viewport/pick';
import type { ViewPointer } from '../../viewport/view-input';
import type { useApart } from './apart/apart-state';
import { buildChips } from './build-chips';
import { buildCommands } from './build-commands';
import { useColours } from './colours/colours-state';
import { colourCommands } from './colours/colour-commands';
import { lookUnder, lookLabels } from './colours/side-by-side';
import type { GradientControl } from './colours/gradient-control';
import { useBuildPose } from './build-pose';
import { useBuild } from './build-state';
import { cursorCommands } from './cursor-commands';
import { handlesControl } from './handles-control';
import { drops, rulerLines, rulerText } from './measure-lines';
import { usePartMatrix } from './picking';
import { figureBeside } from './scale-figure';
import { selectionCommands } from './selection-commands';
import { type SelectMode, useSelection } from './selection-state';
import { LARGE, strokeControl } from './stroke-control';
import { extentOf, targetText, useShipCounts } from './target-meter';
import { PLANE_AXIS, useTints } from './tints';
import { waiting } from './waiting';

const AXIS = ['X', 'Y', 'Z'] as const;

/** Joins pointer, tools and session on the Build screen. */
export function buildControl(): ScreenControl {
  const session = useSession();
  const build = useBuild();
  const posed = useBuildPose();
  const selection = useSelection();
  const view = useView();
  const notices = useNotices();
  const { settings } = useSettings();
  const matrix = usePartMatrix();
  const strokes = strokeControl();
  const handles = handlesControl(matrix);
  const tints = useTints();
  const counts = useShipCounts();
  const colours = useColours();
  // Finishes and taking apart come when their tabs are first opened.
  const gradient = shallowRef<GradientControl | null>(null);
  const apart = shallowRef<ReturnType<typeof useApart> | null>(null);
  async function openTab(tab: string): Promise<void> {
    if (tab === 'finish')
      gradient.value ??= (await import('./colours/gradient-control')).gradientControl(
        matrix,
        () => strokes.frozen() ?? build.seen,
      );
    if (tab === 'apart') apart.value ??= (await import('./apart/apart-state')).useApart();
  }
  const pickNow = shallowRef<Pick | null>(null);
  /** Until the hand comes over the view, everything stands there in its own colours. */
  const handCame = ref(false);
  const over = ref(false);
  const ruler = shallowRef<{ from: Vec3; to: Vec3; set: boolean } | null>(null);
  let lastPointer: ViewPointer | null = null;
  let overHandle = false;

  function pickAt(p: ViewPointer): { event: ToolEvent & { type: 'move' | 'down' | 'up' }; pick: Pick | null } {
    const part = session.part!;
    handCame.value = over.value = true;
    const ray = toLattice(p.ray, matrix.value);
    const pick = pickPart(
      strokes.frozen() ?? build.seen ?? composite(part),
      part,
      ray,
      build.strokeTarget?.takes('paint') ? null : build.guide,
    );
    pickNow.value = pick;
    const cell = pick ? (targetCell(build.card.verb, pick) ?? pick.cell) : null;
    view.cursor = cell ? cell.join(', ') : '';
    return { event: { type: 'move', ray, pick, shift: p.shift, ctrl: p.ctrl }, pick };
  }
  const selectMode = (p: ViewPointer): SelectMode =>
    p.ctrl && p.alt ? 'common' : p.ctrl ? 'add' : p.alt ? 'remove' : selection.mode;

  function pickColour(): void {
    if (lastPointer && session.part) pickAt(lastPointer);
    const value = pickNow.value && !pickNow.value.floor ? build.seen?.get(...pickNow.value.cell) : 0;
    if (value) build.byte = value;
  }
  const cancel = (): void => {
    strokes.cancel();
    handles.cancel();
  };
  /** What hangs in the air goes first. */
  session.onInterrupt(() => {
    if (selection.floating || selection.repeat) {
      selection.cancel();
      return true;
    }
    if (strokes.output.value.active) {
      cancel();
      return true;
    }
    return false;
  });
  const stops = [
    watch(
      () => colours.tab,
      (tab) => void openTab(tab).catch(notices.fail),
      { immediate: true },
    ),
    watch(
      () => selection.preview,
      (p) => {
        if (!strokes.output.value.active) session.preview = p;
      },
    ),
    // Taking up a tool sets down what floats.
    watch([() => build.index, () => build.card.verb, () => build.card.reach], () => selection.settle()),
    watch(
      () => build.measuring,
      () => (ruler.value = null),
    ),
  ];

  const floatingSet = computed(() => (selection.floating ? CellSet.filled(selection.floating.grid) : null));
  watch(
    strokes.output,
    (o) => {
      waiting.value = {
        box: o.waiting,
        hold: (box) => void strokes.feed({ type: 'box', box }),
        set: () => void strokes.feed({ type: 'commit' }),
      };
    },
    { immediate: true },
  );
  const anchor = shallowRef<Vec3 | null>(null);
  const cursorBox = computed(() => (anchor.value && build.cursor ? boxFromCells(anchor.value, build.cursor) : null));
  watch([cursorBox, () => build.cursor], () => {
    view.cursor = build.cursor ? build.cursor.join(', ') : '';
    view.measure = cursorBox.value ? `box ${cursorBox.value.size.join(' × ')} = ${boxVolume(cursorBox.value)}` : '';
  });
  /** Acts at the keyboard cursor as a click there would; shapes go from corner to corner. */
  function actAtCursor(cell: Vec3): void {
    const { card } = build;
    const value = build.swatch?.byte ?? 1;
    if (build.measuring) {
      ruler.value =
        ruler.value && !ruler.value.set
          ? { ...ruler.value, to: cell, set: true }
          : { from: cell, to: cell, set: false };
      return;
    }
    switch (card.reach) {
      case 'extrude':
        strokes.run({
          kind: 'extrude',
          extrusion: {
            cell,
            normal: [0, 1, 0],
            reach: card.face,
            layers: 1,
            value: card.grow ? null : value,
            symmetry: build.symmetry,
          },
        });
        return;
      case 'fill':
        strokes.run({
          kind: 'region',
          verb: card.verb,
          value,
          query: { kind: card.region, cell, normal: [0, 1, 0], diagonals: card.diagonals },
        });
        return;
      case 'point':
      case 'brush':
      case 'stamp':
      case 'opening': {
        const tip = { form: card.tip, size: card.reach === 'brush' ? card.size : 1, axis: 1 as const };
        const centre = cell.map((c) => 2 * c + (tip.size % 2 === 1 ? 1 : 2)) as unknown as Vec3;
        strokes.run({ kind: 'stroke', verb: card.verb, value, shapes: [{ kind: 'dabs', tip, centres: [centre] }] });
        return;
      }
      case 'line':
      case 'box':
      case 'ellipsoid':
      case 'cylinder':
        if (!anchor.value) {
          anchor.value = cell;
          return;
        }
        if (card.reach === 'line')
          strokes.run({
            kind: 'stroke',
            verb: card.verb,
            value,
            shapes: [
              card.path === 'steps'
                ? {
                    kind: 'steps',
                    from: anchor.value,
                    to: cell,
                    up: 1,
                    rise: card.rise,
                    run: card.run,
                    tip: { form: 'cube', size: card.size, axis: 1 },
                    endSize: card.endSize,
                  }
                : {
                    kind: 'line',
                    from: anchor.value,
                    to: cell,
                    tip: { form: 'cube', size: 1, axis: 1 },
                    endSize: 1,
                    joined: card.joined,
                  },
            ],
          });
        else {
          // The same tool that the pointer feeds makes the shape, held by its box.
          strokes.feed({ type: 'box', box: cursorBox.value! });
          strokes.feed({ type: 'commit' });
        }
        anchor.value = null;
    }
  }

  const commands: Command[] = [
    {
      id: 'tool.cancel',
      title: 'Let go without doing',
      group: 'Tools',
      keys: ['Esc'],
      run: () => {
        if (anchor.value) anchor.value = null;
        else if (build.job) build.job.stop();
        else if (session.job) session.job.stop();
        else if (strokes.output.value.active || handles.holding) cancel();
        else if (selection.floating || selection.repeat) selection.cancel();
        else if (build.measuring) build.measuring = false;
        else if (build.cursor) build.cursor = null;
        else selection.set(null);
      },
    },
    // Keys that act on a selection while there is one come before the same keys elsewhere.
    ...selectionCommands(),
    ...buildCommands(tints, pickColour),
    ...colourCommands(),
    ...cursorCommands({
      act: actAtCursor,
      commit: () => strokes.feed({ type: 'commit' }),
      waiting: () => strokes.output.value.active,
      nudge: (by) => (strokes.output.value.active ? void strokes.nudge(by) : selection.nudge(by)),
      movable: () => strokes.output.value.waiting !== null || (selection.active && !build.cursor),
    }),
  ];

  const base = (): Overlay => {
    const part = session.part!;
    const refs = (session.project?.references ?? []).filter((r) => r.part === part.id && !r.hidden);
    const box = part.bounds;
    return {
      ...NO_OVERLAY,
      lattice: matrix.value,
      bounds: box,
      cut: build.limit,
      guide: build.guide,
      pictures: refs.map((r) => ({
        image: r.image,
        axis: PLANE_AXIS[r.plane],
        depth: r.plane === 'side' ? box.min[0] - 0.02 : r.plane === 'top' ? box.min[1] + 0.02 : box.min[2] - 0.02,
        at: r.at,
        size: r.size,
        opacity: r.opacity,
      })),
      figure: figureBeside(
        settings.figure,
        session.project && extentOf(session.project),
        session.project?.metresPerUnit ?? 0.05,
      ),
      spots: [...handles.spots(), ...(gradient.value?.spots() ?? [])],
      arrows: handles.arrows(),
    };
  };
  const hoverCell = computed<Vec3 | null>(() => {
    const pick = pickNow.value;
    if (!over.value || !pick || strokes.output.value.active || build.card.verb !== 'add') return null;
    return targetCell('add', pick);
  });
  /** The name of the colour under the pointer: eyes alone should not have to tell. */
  const underHand = computed(() => {
    const pick = pickNow.value;
    const byte = over.value && pick && !pick.floor ? build.seen?.get(...pick.cell) : 0;
    return byte ? (colours.swatchOf(byte)?.name ?? `swatch ${byte}`) : '';
  });
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

  /** What of a floating piece would be cut off, in the warning tint. */
  function lost(set: CellSet, bounds: Box): Mark[] {
    const outside = set.minus(set.within(intersectBoxes(set.box, bounds)));
    return outside.isEmpty || build.growVolume ? [] : [{ set: outside, tone: 'danger', fill: 0.5 }];
  }

  return {
    scene() {
      const p = session.shown;
      if (!p) return null;
      const id = session.view.part;
      const limit = build.limit;
      return {
        project: posed.seen(p),
        pose: posed.pose,
        hurry: session.preview !== null,
        without: ({ part }) => part.id !== id && (build.isolate || !settings.neighbours),
        // Side by side one looks at the whole.
        faint: ({ part }) => handCame.value && part.id !== id && colours.looks.length === 0,
        glass: ({ part }) => part.id === id && build.seeThrough,
        gridOf: ({ part }) => (part.id === id && limit ? composite(part).clippedTo(limit) : null),
        copies: colours.copiesOf(session.undressed!),
      };
    },
    overlay(): Overlay {
      const part = session.part;
      if (!part) return NO_OVERLAY;
      const out = strokes.output.value;
      const quiet = {
        ...base(),
        joints: (apart.value?.active ? apart.value.joints : []).map((at) => ({
          at: transformPoint(matrix.value, at),
          parent: null,
          selected: false,
          side: 'centre' as const,
        })),
      };
      const marks: Mark[] = [...tints.marks.value.marks, ...(apart.value?.marks ?? [])];
      const floats = selection.floating;
      if (floats)
        marks.push(
          { set: floatingSet.value!, tone: 'honey', fill: 0.16 },
          { set: [floats.grid.bounds], tone: 'honey', fill: 0, through: true },
          ...lost(floatingSet.value!, part.bounds),
        );
      else if (selection.selected) marks.push({ set: selection.selected, tone: 'honey', fill: 0.26 });
      if (gradient.value?.active()) return { ...quiet, marks, strokes: gradient.value.strokes() };
      if (!handCame.value && !build.cursor) return { ...quiet, marks };
      const mirrored = {
        ...quiet,
        mirror: build.mirror,
        cursor: build.cursor,
        marks,
        spin: build.radial
          ? {
              axis: build.radial.axis,
              at: build.middles.map((h) => h / 2) as unknown as Vec3,
              count: build.radial.count,
            }
          : null,
        joints: [
          ...quiet.joints,
          { at: transformPoint(matrix.value, pivotPoint(part)), parent: null, selected: true, side: part.side },
        ],
      };
      const erasing =
        (build.card.verb === 'erase') !==
          (strokes.invert.value && (build.card.verb === 'add' || build.card.verb === 'erase')) &&
        build.card.reach !== 'extrude';
      if (ruler.value)
        return {
          ...mirrored,
          marks: [
            ...marks,
            { set: CellSet.ofCells([ruler.value.from, ruler.value.to]), tone: 'verdigris', fill: 0.4, through: true },
          ],
          strokes: rulerLines(ruler.value),
        };
      if (cursorBox.value)
        return {
          ...mirrored,
          erasing,
          marks: [
            ...marks,
            { set: mirrorBoxes([cursorBox.value], build.mirror), tone: erasing ? 'danger' : 'honey', fill: 0.25 },
          ],
        };
      if (!over.value || overHandle || floats) return mirrored;
      if (out.face && build.seen) {
        const grid = build.seen;
        const faces = mirrorFaces(out.face.cell, out.face.normal, build.mirror).flatMap((f) =>
          (build.card.reach === 'extrude' ? faceRegion(grid, f.cell, f.normal, build.card.face) : [f.cell]).map(
            (cell) => ({ cell, normal: f.normal }),
          ),
        );
        return { ...mirrored, faces };
      }
      const pick = pickNow.value;
      const lines = hoverCell.value ? drops(hoverCell.value, build.limit ?? part.bounds).lines : [];
      // One cube under the pointer is shown by the face it would touch; more by their outline.
      if (!out.active && pick && !pick.floor && build.card.reach === 'point' && build.card.verb === 'paint')
        return { ...mirrored, faces: mirrorFaces(pick.cell, pick.normal, build.mirror) };
      const boxes = hoveredBoxes.value;
      if (boxes && boxes.every((b) => boxContains(part.bounds, b))) {
        return {
          ...mirrored,
          erasing,
          strokes: lines,
          marks: [
            ...marks,
            {
              set: boxes,
              tone: erasing ? 'danger' : build.card.verb === 'select' ? 'verdigris' : 'honey',
              fill: out.active && session.preview && !erasing && build.card.verb !== 'select' ? 0 : 0.25,
            },
          ],
        };
      }
      const set = hovered.value;
      if (!set || set.isEmpty) return { ...mirrored, strokes: lines };
      const tone = erasing ? 'danger' : build.card.verb === 'select' ? 'verdigris' : 'honey';
      const inside = set.within(part.bounds),
        outside = set.minus(inside);
      const spill: Mark[] = outside.isEmpty || build.growVolume ? [] : [{ set: outside, tone: 'danger', fill: 0.45 }];
      // What is drawn already shows itself; then only its outline is needed.
      return {
        ...mirrored,
        erasing,
        strokes: lines,
        marks: [
          ...marks,
          { set: spill.length ? inside : set, tone, fill: out.active && out.preview && tone === 'honey' ? 0 : 0.25 },
          ...spill,
        ],
      };
    },
    labels(): ViewLabel[] {
      const part = session.part;
      if (!part) return [];
      const at = (c: Vec3): Vec3 => transformPoint(matrix.value, c);
      const e = boxEnd(part.bounds),
        m = part.bounds.min;
      const out: ViewLabel[] = [
        ...lookLabels(session.project, colours.looks),
        ...(apart.value?.labels(matrix.value) ?? []),
      ];
      for (const a of AXES) {
        const h = build.mirror[a];
        if (h === null || !handCame.value) continue;
        out.push({
          at: at(
            a === 1
              ? [e[0] + 0.6, h / 2, e[2] + 0.6]
              : [a === 0 ? h / 2 : e[0] + 0.6, e[1] + 0.6, a === 2 ? h / 2 : e[2] + 0.6],
          ),
          text: AXIS[a],
          tone: AXIS[a].toLowerCase() as 'x' | 'y' | 'z',
          shift: true,
        });
      }
      if (build.handles === 'volume')
        AXES.forEach((a) =>
          out.push({
            at: at([
              a === 0 ? (m[0] + e[0]) / 2 : e[0],
              a === 1 ? (m[1] + e[1]) / 2 : m[1],
              a === 2 ? (m[2] + e[2]) / 2 : e[2],
            ]),
            text: `${AXIS[a]} ${part.bounds.size[a]}${part.bounds.size[a] % 2 ? ' odd' : ' even'}`,
            tone: AXIS[a].toLowerCase() as 'x',
          }),
        );
      if (ruler.value)
        out.push({
          at: at(ruler.value.to.map((v, i) => (v + ruler.value!.from[i]!) / 2 + 0.5) as unknown as Vec3),
          text: rulerText(ruler.value),
          tone: 'ink',
        });
      const f = selection.floating;
      if (f) {
        const b = f.grid.bounds;
        out.push({
          at: at([b.min[0] + b.size[0] / 2, b.min[1] + b.size[1], b.min[2] + b.size[2] / 2]),
          text: `floating ${b.size.join('×')} · moved ${f.by.join(', ')}`,
          tone: 'ink',
        });
      }
      return out;
    },
    pointer: {
      down(p) {
        lastPointer = p;
        if (!session.part || !session.writable) return false;
        if (!strokes.output.value.active && handles.down(p)) return true;
        if (gradient.value?.down(p)) return true;
        const { event, pick } = pickAt(p);
        if (build.measuring) {
          if (!pick) return false;
          ruler.value = { from: pick.cell, to: pick.cell, set: false };
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
        const from = lastPointer;
        lastPointer = p;
        if (handles.holding) {
          handles.move(p);
          return;
        }
        if (gradient.value?.move(p)) return;
        const { event, pick } = pickAt(p);
        if (ruler.value && !ruler.value.set) {
          if (pick) ruler.value = { ...ruler.value, to: pick.cell };
          view.measure = rulerText(ruler.value);
          return;
        }
        if (!strokes.output.value.active) {
          overHandle = handles.hover(p);
          strokes.invert.value = p.alt && build.card.verb !== 'select';
          if (selection.floating) return;
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
        if (ruler.value && !ruler.value.set) {
          ruler.value = { ...ruler.value, set: true };
          return;
        }
        if (session.part && strokes.output.value.active) strokes.feed({ ...pickAt(p).event, type: 'up' });
      },
      leave() {
        over.value = false;
        if (!strokes.output.value.active) {
          strokes.output.value = { ...strokes.output.value, shapes: [], face: null };
          if (!selection.preview && !colours.task && !gradient.value?.tries()) session.preview = null;
          view.cursor = '';
          view.measure = '';
        }
      },
      wheel(p) {
        if (!p.alt || !build.guide) return false;
        build.stepGuide(p.by > 0 ? -2 : 2);
        return true;
      },
      cancel,
    },
    trail: () => {
      const part = session.part,
        p = session.project;
      if (!p) return [];
      return part
        ? [
            p.name,
            part.name + sideSuffix(part.side),
            ...(part.layers.length > 1 && session.layer ? [`layer ${session.layer.name}`] : []),
          ]
        : [p.name];
    },
    chips: () => buildChips({ strokes, tints, ruler: ruler.value }),
    readout: () => {
      const part = session.part,
        p = session.project;
      const shown = session.shown?.parts.find((o) => o.id === part?.id);
      const helpers = shown && session.palette ? helperCount(shown, session.palette) : 0;
      const c = hoverCell.value;
      return {
        left:
          part && shown
            ? [
                ...(underHand.value ? [['colour', underHand.value] as [string, string]] : []),
                ...(c ? [['drop', drops(c, build.limit ?? part.bounds).text] as [string, string]] : []),
                ...(selection.active && selection.box
                  ? [
                      ['selection', `${selection.box.size.join(' × ')} = ${selection.count.toLocaleString('en')}`] as [
                        string,
                        string,
                      ],
                    ]
                  : []),
                ['part', part.bounds.size.join(' × ')],
                [
                  'cubes',
                  (composite(shown).count - helpers).toLocaleString('en') + (helpers ? ` + ${helpers} helpers` : ''),
                ],
                ...(counts.value && counts.value.faces > 0
                  ? [
                      [
                        'faces',
                        `${counts.value.faces.toLocaleString('en')} → ${counts.value.triangles.toLocaleString('en')} tris`,
                      ] as [string, string],
                    ]
                  : []),
              ]
            : [],
        right: p ? targetText(p, counts.value, part?.cell ?? 1) : '',
      };
    },
    commands,
    menu: [
      'tool.pick',
      'mirror.x',
      'guide.toggle',
      'cut.toggle',
      'view.isolate',
      'select.all',
      'select.paste',
      'part.shrink',
      'cursor.toggle',
    ],
    tools: ['guide.toggle', 'cut.toggle', 'view.seeThrough', 'tool.measure'],
    dispose() {
      selection.settle();
      stops.forEach((s) => s());
      strokes.dispose();
      waiting.value = null;
      session.onInterrupt(null);
    },
  };

  /** Between two samples whose cells do not touch, more are taken, so that a quick stroke has no gaps where cubes are small. */
  function fillGap(a: ViewPointer, b: ViewPointer, depth: number): void {
    const v = view.viewport;
    if (!v || depth > 4 || Math.hypot(b.x - a.x, b.y - a.y) < 0.6) return;
    const pa = pickAt(a).pick,
      pb = pickAt(b).pick;
    if (!pa || !pb || Math.max(...pa.cell.map((c, i) => Math.abs(c - pb.cell[i]!))) <= 1) return;
    const x = (a.x + b.x) / 2,
      y = (a.y + b.y) / 2;
    const mid: ViewPointer = { ...b, x, y, ray: v.rayAt(x, y) };
    fillGap(a, mid, depth + 1);
    strokes.feed(pickAt(mid).event, false);
    fillGap(mid, b, depth + 1);
    pickAt(b);
  }
}
