import { type Box, type Vec3, boxContains, boxVolume, mapVec } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { type Symmetry, strokeBox, strokeCells } from '@sphalerite/core/sculpt';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import { ref, shallowRef, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import { makeTool } from '../../../tools/cards';
import { type Change, IDLE, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from '../../../tools/tool';
import { useBuild } from '../build-state';
import type { SelectMode } from '../selection/chosen-cells';
import { useStrokeCommit } from './stroke-commit';
import { useStrokePreview } from './stroke-preview';

/** Cells above which the images of a shape are not counted with every move: turned images are many and dear. */
const COUNTED = 200_000,
  TURNED = 1_500;
/** Cubes of a stroke with all its images; null where nothing is mirrored, or too much. */
function withImages(out: ToolOutput, symmetry: Symmetry): number | null {
  const n = out.measure?.count ?? null;
  if (n === null || n > (symmetry.radial ? TURNED : COUNTED) || out.shapes.length === 0) return null;
  if (!symmetry.radial && symmetry.mirror.every((h) => h === null)) return null;
  const box = strokeBox(out.shapes, symmetry);
  return box && boxVolume(box) <= 40 * COUNTED ? strokeCells(out.shapes, symmetry, box).count : null;
}

/** What the view says of the size in hand; empty when nothing is measured. */
function readout(out: ToolOutput, card: { readonly reach: string; readonly verb: string }, symmetry: Symmetry): string {
  const m = out.measure;
  if (!m) return '';
  const count = m.count?.toLocaleString('en');
  if (card.reach === 'extrude') return `extrude ${m.size.find((v) => v !== 0) ?? 0} layers = ${count ?? 0}`;
  const doing = card.verb === 'select' ? 'select' : out.active ? 'drag' : 'place';
  const all = withImages(out, symmetry);
  const images = all === null ? '' : `, ${all.toLocaleString('en')} with its images`;
  return `${doing} ${m.size.join(' × ')}${count === undefined ? '' : ` = ${count}`}${images}`;
}

/** Where an opening's frame stands, proud of its face. */
function openingBox(opening: (Change & { readonly kind: 'opening' })['opening']): Box {
  const { face, normal, proud } = opening;
  return {
    min: mapVec(face.min, (v, i) => v + Math.min(0, normal[i]!) * proud),
    size: mapVec(face.size, (v, i) => v + Math.abs(normal[i]!) * proud),
  };
}

/** Feeds the tool in hand and turns what it asks for into previews, edits and selections. */
export function strokeControl() {
  const session = useSession();
  const build = useBuild();
  const view = useView();
  const output = shallowRef<ToolOutput>(IDLE);
  const invert = ref(false);
  /** Keys held for a selection stroke. */
  const mode = ref<SelectMode>('new');
  const commit = useStrokeCommit(mode);
  const preview = useStrokePreview();
  let tool: Tool = makeTool(build.card.reach);
  /** What was seen when the stroke began; picks are made against it. */
  let frozen: VoxelGrid | null = null;
  /** Cubes that the face in hand would add or take. */
  let pulled = 0;

  function context(): ToolContext | null {
    const part = session.part,
      seen = frozen ?? build.seen;
    if (!part || !seen) return null;
    const stamp = session.project?.stamps.find((s) => s.id === build.stamp) ?? session.project?.stamps[0];
    // What is not cubes is painted onto them, never beside them.
    const paints = build.strokeTarget?.takes('add') && build.card.verb === 'add';
    return {
      card: paints ? { ...build.card, verb: 'paint' } : build.card,
      seen,
      limit: build.limit ?? part.bounds,
      value: build.swatch?.byte ?? 1,
      symmetry: build.symmetry,
      invert: invert.value,
      square: view.viewport?.camera.square ?? null,
      stamp: stamp?.layers[0]?.grid ?? null,
    };
  }
  function run(c: Change): void {
    preview.forget();
    commit(c, pulled);
  }
  /** Whether what the view tries out is a stroke's: what a panel tries out stays while the pointer only passes. */
  let mine = false;
  function show(p: Project | null): void {
    if (p || mine) session.preview = p;
    mine = p !== null;
  }
  function feed(event: ToolEvent, settle = true): boolean {
    if (event.type === 'down' && !output.value.active) frozen = build.seen;
    const ctx = context();
    if (!ctx || !session.layer) return false;
    const out = tool.handle(event, ctx);
    if (build.card.reach === 'extrude') pulled = out.measure?.count ?? pulled;
    if (!settle && !out.commit) return out.active;
    if (out.commit) {
      if (!out.active) frozen = null;
      session.preview = null;
      run(out.commit);
      if (out.active) frozen = build.seen;
    }
    output.value = out;
    show(out.preview && session.writable ? preview.outcome(out.preview, pulled) : null);
    if (!out.active) letGo();
    view.measure = readout(out, build.card, build.symmetry);
    return out.active;
  }
  function letGo(): void {
    frozen = null;
    preview.forget();
  }
  function cancel(): void {
    const ctx = context();
    if (ctx) tool.handle({ type: 'cancel' }, ctx);
    letGo();
    build.growOnce = false;
    output.value = IDLE;
    show(null);
    view.measure = '';
  }
  const takeTool = (): void => {
    cancel();
    tool = makeTool(build.card.reach);
  };
  const stops = [
    watch([() => build.card.reach, () => build.index], takeTool),
    watch(() => session.hand.part, cancel),
    // Options, swatch and mirror act on a shape that waits.
    watch([() => build.card, () => build.byte, () => build.symmetry, () => build.grows], () => {
      if (output.value.active) feed({ type: 'refresh' });
    }),
  ];
  /** The box a shape would fill with its copies, when it leaves the volume. */
  function outside(): Box | null {
    const part = session.part,
      out = output.value;
    if (!part) return null;
    if (out.preview?.kind === 'opening') {
      const proud = openingBox(out.preview.opening);
      return boxContains(part.bounds, proud) ? null : proud;
    }
    if (build.grows || build.card.verb !== 'add' || out.shapes.length === 0) return null;
    const box = strokeBox(out.shapes, build.symmetry);
    return box && !boxContains(part.bounds, box) ? box : null;
  }
  return {
    output,
    invert,
    mode,
    feed,
    cancel,
    run,
    outside,
    frozen: () => frozen,
    nudge: (by: Vec3) => feed({ type: 'nudge', by }),
    dispose: () => stops.forEach((s) => s()),
  };
}
export type StrokeControl = ReturnType<typeof strokeControl>;
