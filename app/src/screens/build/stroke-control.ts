import { type Box, type Vec3, boxContains, boxVolume, mapVec } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { extrudeEdit, openingEdit, placeCellsEdit, strokeEdit } from '@sphalerite/core/project';
import { NO_SYMMETRY, shapeBox, strokeBox, strokeCells, symmetricSet } from '@sphalerite/core/sculpt';
import { CellSet, type VoxelGrid } from '@sphalerite/core/voxel';
import { ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { makeTool } from '../../tools/cards';
import { type Change, IDLE, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from '../../tools/tool';
import { useBuild } from './build-state';
import { regionInBackground } from './region-job';
import { type SelectMode, useSelection } from './selection-state';

/** Cells of a shape's box above which it is not drawn anew with every move. */
export const LARGE = 1_500_000;

/** Feeds the tool in hand and turns what it asks for into previews, edits and selections. */
export function strokeControl() {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const view = useView();
  const notices = useNotices();
  const output = shallowRef<ToolOutput>(IDLE);
  const invert = ref(false);
  /** Keys held for a selection stroke. */
  const mode = ref<SelectMode>('new');
  let tool: Tool = makeTool(build.card.reach);
  /** What was seen when the stroke began; picks are made against it. */
  let frozen: VoxelGrid | null = null;
  /** How far the preview of a trail has come, so that only its newest dabs are drawn. */
  let drawn: { base: Project; done: number; first: unknown; preview: Project } | null = null;

  function context(): ToolContext | null {
    const part = session.part,
      seen = frozen ?? build.seen;
    if (!part || !seen) return null;
    const stamp = session.project?.stamps.find((s) => s.id === build.stamp) ?? session.project?.stamps[0];
    return {
      // What is not cubes is painted onto them, never beside them.
      card:
        build.strokeTarget?.takes('add') && build.card.verb === 'add' ? { ...build.card, verb: 'paint' } : build.card,
      seen,
      limit: build.limit ?? part.bounds,
      value: build.swatch?.byte ?? 1,
      symmetry: build.symmetry,
      invert: invert.value,
      square: view.viewport?.camera.square ?? null,
      stamp: stamp?.layers[0]?.grid ?? null,
    };
  }
  const target = () => ({ part: session.part!.id, layer: session.layer!.id, limit: build.limit });

  /** Shapes too large to be drawn anew with every move, and faces of too many cubes: their outline is shown, and a worker makes them. */
  const isLarge = (c: Change): boolean =>
    c.kind === 'stroke'
      ? c.shapes.reduce(
          (n, s) =>
            n + (s.kind === 'dabs' || s.kind === 'set' || (s.kind === 'box' && !s.hollow) ? 0 : boxVolume(shapeBox(s))),
          0,
        ) > LARGE
      : c.kind === 'extrude' && pulled > LARGE / 5;
  /** Cubes that the face in hand would add or take. */
  let pulled = 0;

  /** What a change would give; a trail goes on from its last preview. */
  function outcome(c: Change): Project | null {
    if (isLarge(c)) return null;
    switch (c.kind) {
      case 'stroke': {
        if (c.verb === 'select') return null;
        if (build.strokeTarget?.takes(c.verb))
          return build.strokeTarget.tryOut(
            strokeCells(c.shapes, build.symmetry, build.limit ?? session.part!.bounds),
            c.verb,
          );
        const args = {
          ...target(),
          grow: build.growVolume,
          stroke: { verb: c.verb, value: c.value, shapes: c.shapes, symmetry: build.symmetry },
        };
        const base = session.project!;
        if (
          drawn &&
          drawn.base === base &&
          drawn.first === c.shapes[0] &&
          c.shapes.length >= drawn.done &&
          c.shapes[0]?.kind === 'dabs'
        ) {
          const rest = c.shapes.slice(drawn.done);
          const next: Project | null =
            rest.length === 0
              ? drawn.preview
              : session.tryOn(drawn.preview, strokeEdit, { ...args, stroke: { ...args.stroke, shapes: rest } });
          if (next) drawn = { ...drawn, done: c.shapes.length, preview: next };
          return next;
        }
        const preview = session.tryEdit(strokeEdit, args, true);
        drawn = preview && { base, done: c.shapes.length, first: c.shapes[0], preview };
        return preview;
      }
      case 'extrude':
        return session.tryEdit(extrudeEdit, { ...target(), extrusion: c.extrusion }, true);
      case 'opening':
        return session.tryEdit(openingEdit, { ...target(), opening: c.opening, symmetry: build.symmetry }, true);
      case 'stamp':
        return c.verb === 'add' ? session.tryEdit(placeCellsEdit, stampArgs(c), true) : null;
      case 'region':
        return null;
    }
  }
  function stampArgs(c: Change & { kind: 'stamp' }) {
    const { mirror } = build.symmetry;
    let put = [c.grid];
    ([0, 1, 2] as const).forEach((a) => {
      const h = mirror[a];
      if (h !== null) put = put.concat(put.map((g) => selection.mirrored(g, a, h)));
    });
    return { ...target(), clear: null, put: selection.spun(put), title: 'Stamp', grow: build.growVolume };
  }

  function run(c: Change): void {
    if (!session.part || !session.layer) return;
    drawn = null;
    if (build.strokeTarget?.takes('add') && (c.kind === 'extrude' || c.kind === 'opening' || c.kind === 'stamp')) {
      notices.say(
        'Pieces are painted with points, brushes, lines, boxes and fills. Take such a tool, or end painting first.',
      );
      return;
    }
    switch (c.kind) {
      case 'stroke': {
        if (c.verb === 'select') {
          selection.take(strokeCells(c.shapes, build.symmetry, build.limit ?? session.part.bounds), mode.value);
          if (selection.selected && view.viewport?.camera.square !== null && build.card.reach === 'box')
            notices.say(
              `${selection.count.toLocaleString('en')} cubes selected, all that lie behind one another${build.limit ? '; what the cutaway hides is left out' : ''}.`,
            );
          return;
        }
        if (build.strokeTarget?.takes(c.verb)) {
          build.strokeTarget.take(strokeCells(c.shapes, build.symmetry, build.limit ?? session.part.bounds), c.verb);
          return;
        }
        const args = {
          ...target(),
          grow: build.growVolume,
          stroke: { verb: c.verb, value: c.value, shapes: c.shapes, symmetry: build.symmetry },
        };
        const lost = build.growVolume || c.verb !== 'add' ? null : strokeBox(c.shapes, build.symmetry);
        const inside = !lost || boxContains(session.part.bounds, lost);
        if (isLarge(c)) {
          void session.applyInBackground(strokeEdit, args);
          return;
        }
        const did = session.apply(strokeEdit, args);
        if (!inside && !build.limit) {
          notices.say('Part of the shape lies outside the volume and was left out.', {
            action: {
              label: 'Grow to fit',
              run: () => {
                if (did) session.undo();
                session.apply(strokeEdit, { ...args, grow: true });
              },
            },
          });
        }
        return;
      }
      case 'extrude': {
        const args = { ...target(), extrusion: c.extrusion };
        if (isLarge(c)) void session.applyInBackground(extrudeEdit, args);
        else session.apply(extrudeEdit, args);
        return;
      }
      case 'opening':
        session.apply(openingEdit, { ...target(), opening: c.opening, symmetry: build.symmetry });
        return;
      case 'stamp': {
        const args = stampArgs(c);
        const cells = args.put.reduce<CellSet>(
          (s, g) => s.union(CellSet.filled(g)),
          new CellSet({ min: [0, 0, 0], size: [0, 0, 0] }),
        );
        if (c.verb === 'add') session.apply(placeCellsEdit, args);
        else if (c.verb === 'select') selection.take(cells, mode.value);
        else
          session.apply(strokeEdit, {
            ...target(),
            stroke: {
              verb: c.verb,
              value: build.swatch?.byte ?? 1,
              shapes: [{ kind: 'set', set: cells }],
              symmetry: NO_SYMMETRY,
            },
          });
        return;
      }
      case 'region':
        void fill(c);
        return;
    }
  }

  /** Regions of large volumes are sought in a worker; the result counts only while the project is as it was. */
  async function fill(c: Change & { kind: 'region' }): Promise<void> {
    const part = session.part!,
      before = session.project,
      seen = build.seen!,
      how = mode.value;
    const where = { ...target() };
    const set = await regionInBackground(seen, c.query, (job) => (build.job = job));
    if (!set) return;
    if (session.project !== before) {
      notices.say('The part has changed meanwhile; the fill was let go. Click again.', { kind: 'error' });
      return;
    }
    const cells = symmetricSet(set, build.symmetry, build.limit ?? part.bounds);
    if (c.verb === 'select') selection.take(cells, how);
    else if (build.strokeTarget?.takes(c.verb)) build.strokeTarget.take(cells, c.verb);
    else
      session.apply(strokeEdit, {
        ...where,
        stroke: {
          verb: c.verb === 'add' && c.query.kind !== 'space' ? 'paint' : c.verb,
          value: c.value,
          shapes: [{ kind: 'set', set: cells }],
          symmetry: NO_SYMMETRY,
        },
      });
  }

  /** Whether what the view tries out is a stroke's: what a panel tries out stays while the pointer only passes. */
  let mine = false;
  function show(p: Project | null): void {
    if (p || mine) session.preview = p;
    mine = p !== null;
  }

  function feed(event: ToolEvent, settle = true): boolean {
    const starting = event.type === 'down' && !output.value.active;
    if (starting) frozen = build.seen;
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
    const shown = out.preview && session.writable ? outcome(out.preview) : null;
    show(shown);
    if (!out.active) {
      frozen = null;
      drawn = null;
    }
    const m = out.measure;
    view.measure = !m
      ? ''
      : build.card.reach === 'extrude'
        ? `extrude ${m.size.find((v) => v !== 0) ?? 0} layers = ${(m.count ?? 0).toLocaleString('en')}`
        : `${build.card.verb === 'select' ? 'select' : out.active ? 'drag' : 'place'} ${m.size.join(' × ')}${m.count === null ? '' : ` = ${m.count.toLocaleString('en')}`}`;
    return out.active;
  }

  const cancel = (): void => {
    const ctx = context();
    if (ctx) tool.handle({ type: 'cancel' }, ctx);
    frozen = null;
    drawn = null;
    output.value = IDLE;
    show(null);
    view.measure = '';
  };
  const stops = [
    watch(
      () => build.card.reach,
      (reach) => {
        cancel();
        tool = makeTool(reach);
      },
    ),
    watch(
      () => build.index,
      () => {
        cancel();
        tool = makeTool(build.card.reach);
      },
    ),
    watch(() => session.view.part, cancel),
    // Options, swatch and mirror act on a shape that waits.
    watch([() => build.card, () => build.byte, () => build.symmetry, () => build.growVolume], () => {
      if (output.value.active) feed({ type: 'refresh' });
    }),
  ];
  /** The box a shape would fill with its copies, when it leaves the volume. */
  function outside(): Box | null {
    const part = session.part,
      out = output.value;
    const o = out.preview?.kind === 'opening' ? out.preview.opening : null;
    if (part && o) {
      const proud: Box = {
        min: mapVec(o.face.min, (v, i) => v + Math.min(0, o.normal[i]!) * o.proud),
        size: mapVec(o.face.size, (v, i) => v + Math.abs(o.normal[i]!) * o.proud),
      };
      return boxContains(part.bounds, proud) ? null : proud;
    }
    if (!part || build.growVolume || build.card.verb !== 'add' || out.shapes.length === 0) return null;
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
