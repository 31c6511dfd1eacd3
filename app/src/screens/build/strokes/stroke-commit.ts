import { boxContains } from '@sphalerite/core/math';
import { extrudeEdit, openingEdit, placeCellsEdit, strokeEdit } from '@sphalerite/core/project';
import { NO_SYMMETRY, type StrokeVerb, columnsOf, strokeBox, symmetricSet } from '@sphalerite/core/sculpt';
import { CellSet } from '@sphalerite/core/voxel';
import type { Ref } from 'vue';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useView } from '../../../stores/view';
import type { Change } from '../../../tools/tool';
import { useBuild } from '../build-state';
import { useColours } from '../colours/colours-state';
import type { SelectMode } from '../selection/chosen-cells';
import { useSelection } from '../selection/selection-state';
import { type StampChange, type StrokeChange, isLarge, useChangeArguments } from './change-arguments';
import { regionInBackground } from './region-job';
import { say } from '../../../words';

type RegionChange = Change & { readonly kind: 'region' };

const PIECES_ARE_NOT_PAINTED = say('pieces.otherTool');

/** Does what a tool asks for: edits, selections, and strokes of the target that takes them. `mode`: keys held for selecting. */
export function useStrokeCommit(mode: Ref<SelectMode>) {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const view = useView();
  const notices = useNotices();
  const colours = useColours();
  const args = useChangeArguments();

  const setStroke = (verb: StrokeVerb, value: number, set: CellSet, target = args.target()): void =>
    void session.apply(strokeEdit, {
      ...target,
      stroke: { verb, value, shapes: [{ kind: 'set', set }], symmetry: NO_SYMMETRY },
    });

  function select(c: StrokeChange): void {
    const square = view.viewport?.camera.square ?? null,
      cells = args.cells(c);
    // Whoever takes apart means what lies behind too, with every reach; else a box alone does.
    const deep = square !== null && colours.tab === 'apart';
    selection.take(deep ? columnsOf(cells, square, build.limit ?? session.part!.bounds) : cells, mode.value);
    if (!selection.selected || square === null || !(deep || build.card.reach === 'box')) return;
    const count = selection.count.toLocaleString('en');
    const hidden = build.limit ? '; what the cutaway hides is left out' : '';
    notices.say(`${say('cubes.selectedThrough', { n: count })}${hidden}.`);
  }
  function stroke(c: StrokeChange, pulled: number): void {
    const { verb } = c;
    if (verb === 'select') return select(c);
    if (build.strokeTarget?.takes(verb)) return build.strokeTarget.take(args.cells(c), verb);
    const edit = args.stroke({ ...c, verb });
    if (isLarge(c, pulled)) return void session.applyInBackground(strokeEdit, edit);
    const box = build.grows || verb !== 'add' ? null : strokeBox(c.shapes, build.symmetry);
    const inside = !box || boxContains(session.part!.bounds, box);
    const before = session.part!;
    const did = session.apply(strokeEdit, edit);
    // Only to be told, so that it may come when it is first needed.
    if (did) void import('./mirror-hints').then((m) => m.useMirrorHints().told(before, edit));
    // What was refused has told so itself.
    if (!did && inside && session.tryEdit(strokeEdit, edit, true) === session.project)
      return void notices.say(say(`stroke.nothing.${verb}`));
    if (inside || build.limit) return;
    const run = (): void => {
      if (did) session.undo();
      session.apply(strokeEdit, { ...edit, grow: true });
    };
    notices.say(say('shape.cutOff'), {
      action: { label: 'Grow to fit', run },
    });
  }
  function extrude(c: Change & { readonly kind: 'extrude' }, pulled: number): void {
    const edit = { ...args.target(), extrusion: c.extrusion };
    if (isLarge(c, pulled)) void session.applyInBackground(extrudeEdit, edit);
    else session.apply(extrudeEdit, edit);
  }
  function opening(c: Change & { readonly kind: 'opening' }): void {
    const before = session.part!;
    if (session.apply(openingEdit, { ...args.target(), opening: c.opening, symmetry: build.symmetry }))
      selection.wasMade(before);
  }
  function stamp(c: StampChange): void {
    const edit = args.stamp(c);
    if (c.verb === 'add') return void session.apply(placeCellsEdit, edit);
    const none = new CellSet({ min: [0, 0, 0], size: [0, 0, 0] });
    const cells = edit.put.reduce<CellSet>((s, g) => s.union(CellSet.filled(g)), none);
    if (c.verb === 'select') selection.take(cells, mode.value);
    else setStroke(c.verb, build.swatch?.byte ?? 1, cells);
  }
  /** Regions of large volumes are sought in a worker; the result counts only while the project is as it was. */
  async function fill(c: RegionChange): Promise<void> {
    const { part, project } = session;
    const how = mode.value,
      target = args.target();
    const set = await regionInBackground(build.seen!, c.query, (job) => (build.job = job));
    if (!set) return;
    if (session.project !== project) {
      notices.say(say('fill.letGo'), { kind: 'error' });
      return;
    }
    const cells = symmetricSet(set, build.symmetry, build.limit ?? part!.bounds);
    if (c.verb === 'select') selection.take(cells, how);
    else if (build.strokeTarget?.takes(c.verb)) build.strokeTarget.take(cells, c.verb);
    else setStroke(c.verb === 'add' && c.query.kind !== 'space' ? 'paint' : c.verb, c.value, cells, target);
  }

  function change(c: Change, pulled: number): void {
    if (build.strokeTarget?.takes('add') && (c.kind === 'extrude' || c.kind === 'opening' || c.kind === 'stamp'))
      return void notices.say(PIECES_ARE_NOT_PAINTED);
    switch (c.kind) {
      case 'stroke':
        return stroke(c, pulled);
      case 'extrude':
        return extrude(c, pulled);
      case 'opening':
        return opening(c);
      case 'stamp':
        return stamp(c);
      case 'region':
        return void fill(c);
    }
  }

  /** `pulled`: cubes that the face in hand adds or takes. */
  return function run(c: Change, pulled = 0): void {
    if (!session.part || !session.layer) return;
    change(c, pulled);
    build.growOnce = false;
  };
}
