import { IconArrowBarToUp, IconFlipVertical, IconKeyboard } from '@tabler/icons-vue';
import { type Mat4, MAT4_IDENTITY, type Vec3, transformPoint } from '@sphalerite/core/math';
import { composite, pivotPoint, sideSuffix } from '@sphalerite/core/model';
import { addPartEdit, deletePartEdit, duplicatePartEdit, extrudeEdit, setPartHiddenEdit, shrinkPartEdit, strokeEdit } from '@sphalerite/core/project';
import { REST_POSE, placeParts } from '@sphalerite/core/rig';
import { faceRegion, mirrorBoxes, mirrorFaces } from '@sphalerite/core/sculpt';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import { computed, ref, shallowRef, watch } from 'vue';
import type { Chip, ScreenControl } from '../../shell/screen';
import type { Command } from '../../stores/commands';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useView } from '../../stores/view';
import { makeTool } from '../../tools/cards';
import { targetCell } from '../../tools/geometry';
import { type Change, IDLE, type Pick, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from '../../tools/tool';
import { effectiveVerb } from '../../tools/verbs';
import { NO_OVERLAY, type Overlay } from '../../viewport/overlay';
import type { ViewPointer } from '../../viewport/view-input';
import { useBuild } from './build-state';
import { cursorCommands } from './cursor-commands';
import { pickPart, toLattice } from '../../viewport/pick';

const AXIS = ['X', 'Y', 'Z'] as const;

/** Joins pointer, tools and session on the Build screen. */
export function buildControl(): ScreenControl {
  const session = useSession();
  const build = useBuild();
  const view = useView();
  const { settings } = useSettings();
  const output = shallowRef<ToolOutput>(IDLE);
  const pickNow = shallowRef<Pick | null>(null);
  const invert = ref(false);
  /** Until the hand comes over the view, everything stands there in its own colours. */
  const handCame = ref(false);
  let tool: Tool = makeTool(build.card.reach);
  /** The part's cubes as they were when the stroke began. */
  let frozen: VoxelGrid | null = null;

  const matrix = computed<Mat4>(() => {
    const p = session.project, part = session.part;
    if (!p || !part) return MAT4_IDENTITY;
    return placeParts({ ...p, parts: p.parts.map((o) => (o.id === part.id ? { ...o, hidden: false } : o)) }, REST_POSE).find((o) => o.part.id === part.id)?.matrix ?? MAT4_IDENTITY;
  });

  function context(inverted: boolean): ToolContext | null {
    const part = session.part;
    if (!part) return null;
    return { card: build.card, seen: frozen ?? composite(part), value: build.swatch?.byte ?? 1, mirror: build.mirror, invert: inverted };
  }

  function run(change: Change | null): void {
    const part = session.part, layer = session.layer;
    if (!change || !part || !layer) return;
    const target = { part: part.id, layer: layer.id };
    if (change.kind === 'stroke') session.apply(strokeEdit, { ...target, stroke: change.stroke });
    else session.apply(extrudeEdit, { ...target, extrusion: change.extrusion });
  }
  function show(change: Change | null): void {
    const part = session.part, layer = session.layer;
    if (!change || !part || !layer || !session.writable) {
      session.preview = null;
      return;
    }
    const target = { part: part.id, layer: layer.id };
    session.preview = change.kind === 'stroke' ? session.tryEdit(strokeEdit, { ...target, stroke: change.stroke }, true) : session.tryEdit(extrudeEdit, { ...target, extrusion: change.extrusion }, true);
  }

  function feed(event: ToolEvent, inverted = invert.value, settle = true): boolean {
    const ctx = context(inverted);
    if (!ctx) return false;
    if (event.type === 'down' && !output.value.active) {
      invert.value = inverted;
      frozen = ctx.seen;
    }
    const out = tool.handle(event, ctx);
    if (!settle) return out.active;
    output.value = out;
    if (out.commit) {
      frozen = null;
      run(out.commit);
    } else show(out.preview);
    if (!out.active) frozen = null;
    const m = out.measure;
    view.measure = m ? (build.card.reach === 'extrude' ? `extrude ${m.size.find((v) => v !== 0) ?? 0} layers = ${m.count.toLocaleString('en')}` : `drag ${m.size.join(' × ')} = ${m.count.toLocaleString('en')}`) : '';
    return out.active;
  }

  function toEvent(type: 'move' | 'down' | 'up', p: ViewPointer): ToolEvent {
    const part = session.part!;
    handCame.value = true;
    const ray = toLattice(p.ray, matrix.value);
    const pick = pickPart(frozen ?? composite(part), part, ray);
    pickNow.value = pick;
    const cell = pick ? (targetCell(effectiveVerb(context(invert.value)!), pick) ?? pick.cell) : null;
    view.cursor = cell ? cell.join(', ') : '';
    return { type, ray, pick };
  }

  const cancel = (): void => {
    feed({ type: 'cancel' });
    frozen = null;
    output.value = IDLE;
    view.measure = '';
  };
  const stop = watch(() => build.card.reach, (reach) => {
    cancel();
    tool = makeTool(reach);
  });
  const stopPart = watch(() => session.view.part, cancel);

  /** Acts at the keyboard cursor as a click there would. */
  function actAtCursor(cell: Vec3): void {
    const ctx = context(false);
    if (!ctx) return;
    if (build.card.reach === 'extrude') {
      const change: Change = { kind: 'extrude', extrusion: { cell, normal: [0, 1, 0], reach: build.card.face, layers: 1, value: null, mirror: build.mirror } };
      run(change);
      return;
    }
    if (build.card.reach === 'point') {
      run({ kind: 'stroke', stroke: { verb: build.card.verb, value: ctx.value, boxes: [{ min: cell, size: [1, 1, 1] }], mirror: build.mirror } });
      return;
    }
    if (!anchor.value) {
      anchor.value = cell;
      return;
    }
    run({ kind: 'stroke', stroke: { verb: build.card.verb, value: ctx.value, boxes: [cursorBox.value!], mirror: build.mirror } });
    anchor.value = null;
  }
  const anchor = shallowRef<Vec3 | null>(null);
  const cursorBox = computed(() => {
    const a = anchor.value, b = build.cursor;
    if (!a || !b) return null;
    const lo = a.map((v, i) => Math.min(v, b[i]!)) as unknown as Vec3;
    return { min: lo, size: a.map((v, i) => Math.abs(v - b[i]!) + 1) as unknown as Vec3 };
  });
  watch([cursorBox, () => build.cursor], () => {
    view.cursor = build.cursor ? build.cursor.join(', ') : '';
    view.measure = cursorBox.value ? `box ${cursorBox.value.size.join(' × ')} = ${cursorBox.value.size.reduce((a, b) => a * b, 1)}` : '';
  });

  const partCommand = (id: string, title: string, f: () => unknown, keys?: string[]): Command => ({ id, title, group: 'Part', ...(keys ? { keys } : {}), enabled: () => session.part !== null, run: f });
  const commands: Command[] = [
    ...build.cards.map((_, i): Command => ({
      id: `tool.${i + 1}`, get title() { return `Take tool ${i + 1}: ${build.cards[i]!.name}`; }, group: 'Tools', keys: [String(i + 1)], on: () => build.index === i,
      run: () => (build.index = i),
    })),
    ...AXIS.map((a, i): Command => ({ id: `mirror.${a.toLowerCase()}`, title: `Mirror ${a}`, group: 'Tools', keys: [['M', 'Shift+M', 'Alt+M'][i]!], icon: IconFlipVertical, on: () => build.mirrorOn[i]!, run: () => build.toggleMirror(i as 0 | 1 | 2) })),
    { id: 'tool.cancel', title: 'Let go without doing', group: 'Tools', keys: ['Esc'], run: () => {
      if (anchor.value) anchor.value = null;
      else if (output.value.active) cancel();
      else build.cursor = null;
    } },
    { id: 'view.isolate', title: 'Isolate the part', group: 'View', keys: ['I'], on: () => build.isolate, run: () => (build.isolate = !build.isolate) },
    partCommand('part.new', 'New part', () => session.apply(addPartEdit, { name: 'Part', bounds: { min: [-8, 0, -8], size: [16, 16, 16] }, pivot: [0, 0, 0] }, (p) => ({ part: p.parts.at(-1)!.id, layer: null }))),
    partCommand('part.duplicate', 'Duplicate the part', () => session.apply(duplicatePartEdit, { part: session.part!.id }), ['Ctrl+D']),
    partCommand('part.delete', 'Delete the part (to the bin)', () => session.apply(deletePartEdit, { part: session.part!.id })),
    partCommand('part.hide', 'Hide or show the part', () => session.apply(setPartHiddenEdit, { part: session.part!.id, hidden: !session.part!.hidden }), ['Shift+H']),
    partCommand('part.shrink', 'Shrink to fit', () => session.apply(shrinkPartEdit, { part: session.part!.id })),
    ...cursorCommands(actAtCursor, () => feed({ type: 'commit' }), () => output.value.active),
  ];

  return {
    scene() {
      const p = session.shown;
      if (!p) return null;
      const id = session.view.part;
      return {
        project: p, pose: REST_POSE, hurry: session.preview !== null,
        without: ({ part }) => part.id !== id && (build.isolate || !settings.neighbours),
        faint: ({ part }) => handCame.value && part.id !== id,
      };
    },
    overlay(): Overlay {
      const part = session.part;
      if (!part) return NO_OVERLAY;
      const out = output.value;
      if (!handCame.value && !build.cursor) return { ...NO_OVERLAY, lattice: matrix.value, bounds: part.bounds };
      const base = { ...NO_OVERLAY, lattice: matrix.value, bounds: part.bounds, mirror: build.mirror, cursor: build.cursor,
        joints: [{ at: transformPoint(matrix.value, pivotPoint(part)), parent: null, selected: true, side: part.side }] };
      const erasing = build.card.verb === 'erase' && build.card.reach !== 'extrude';
      if (cursorBox.value) return { ...base, erasing, cells: mirrorBoxes([cursorBox.value], build.mirror) };
      if (out.face) {
        const faces = mirrorFaces(out.face.cell, out.face.normal, build.mirror)
          .flatMap((f) => faceRegion(composite(part), f.cell, f.normal, build.card.face).map((cell) => ({ cell, normal: f.normal })));
        return { ...base, faces };
      }
      const pick = pickNow.value;
      const boxes = mirrorBoxes(out.cells, build.mirror);
      // One cell under the pointer is shown with the face it would touch; more cells as their box.
      if (!out.active && pick && !pick.floor && out.cells.length === 1 && build.card.verb === 'paint') {
        return { ...base, faces: mirrorFaces(pick.cell, pick.normal, build.mirror) };
      }
      return { ...base, erasing: erasing !== invert.value, cells: boxes };
    },
    pointer: {
      down(p) {
        if (!session.part || !session.writable) return false;
        const e = toEvent('down', p);
        if (!output.value.active && (!('pick' in e) || !e.pick)) return false;
        feed(e, p.alt);
        return true;
      },
      move(p, settle) {
        if (!session.part) return;
        if (!output.value.active) invert.value = p.alt;
        feed(toEvent('move', p), invert.value, settle);
      },
      up(p) {
        if (session.part) feed(toEvent('up', p));
      },
      leave() {
        if (!output.value.active) {
          output.value = IDLE;
          view.cursor = '';
        }
      },
      cancel,
    },
    trail: () => {
      const part = session.part, p = session.project;
      if (!p) return [];
      return part ? [p.name, part.name + sideSuffix(part.side), ...(part.layers.length > 1 && session.layer ? [`layer ${session.layer.name}`] : [])] : [p.name];
    },
    chips: () => [
      ...build.mirror.flatMap((h, a): Chip[] => (h === null ? [] : [{ text: `mirror ${AXIS[a]!}, ${h % 2 === 0 ? 'between cubes' : 'through cubes'}`, tone: 'red', icon: IconFlipVertical }])),
      ...(build.cursor ? [{ text: 'keyboard cursor: arrows, Page Up and Down, Enter', tone: 'green', icon: IconKeyboard } satisfies Chip] : []),
      ...(output.value.asks ? [{ text: output.value.asks, tone: 'resin', icon: IconArrowBarToUp } satisfies Chip] : []),
      ...(session.part?.hidden ? [{ text: 'this part is hidden', tone: 'resin' } satisfies Chip] : []),
    ],
    readout: () => {
      const part = session.part, p = session.project;
      const grid = session.shown?.parts.find((o) => o.id === part?.id);
      return {
        left: part && grid ? [['part', part.bounds.size.join(' × ')], ['cubes', composite(grid).count.toLocaleString('en')], ['in hand', build.card.name]] : [],
        right: p ? `1 cube = ${(p.metresPerUnit * (part?.cell ?? 1) * 100).toFixed(1)} cm` : '',
      };
    },
    commands,
    menu: ['mirror.x', 'view.isolate', 'part.shrink', 'cursor.toggle'],
    dispose() {
      stop();
      stopPart();
    },
  };
}
