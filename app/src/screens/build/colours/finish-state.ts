import { type Vec3, boxVolume, transformPoint } from '@sphalerite/core/math';
import type { Finish, FinishKind } from '@sphalerite/core/paint';
import { finishEdit, heightsOf } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, reactive, ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../../stores/notices';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { usePartMatrix } from '../picking';
import { useSelection } from '../selection/selection-state';
import { useColours } from './colours-state';

/** Cells that a finish is tried out on with every change; more are painted in a worker. */
const ON_THE_SPOT = 250_000;

export const SCOPES = ['selection', 'part', 'project'] as const;
export type Scope = (typeof SCOPES)[number];

/** The finish that is being tried out: shown in the view as if it were done, until it is painted or let go. */
export const useFinish = defineStore('finish', () => {
  const session = useSession();
  const build = useBuild();
  const colours = useColours();
  const selection = useSelection();
  const notices = useNotices();
  const matrix = usePartMatrix();
  const kind = ref<FinishKind>('gradient');
  const scope = ref<Scope>('part');
  const onlyHand = ref(false);
  const ownTones = ref(true);
  const shown = ref(false);
  const busy = ref(false);
  const options = reactive({
    seed: 1,
    blend: 'ordered' as 'bands' | 'ordered' | 'noise',
    round: false,
    amount: 0.18,
    size: 1,
    share: 0.5,
    reach: 4,
    strength: 1,
    long: 6,
    high: 2,
    bond: 0.5,
    gap: 1,
    joint: 0,
    sides: 'each' as 'each' | 'walls' | 'floor',
    upright: false,
    wide: 3,
    plankLong: 14,
    plankGap: 0,
    grain: 0.15,
  });
  /** The ends of a gradient in project units; from the lowest to the highest cube until they are drawn. */
  const ends = shallowRef<{ readonly from: Vec3; readonly to: Vec3 } | null>(null);
  const active = computed(() => colours.tab === 'finish' && session.part !== null);
  watch(
    () => session.view.part,
    () => (ends.value = null),
  );
  watch(
    () => selection.selected,
    (s) => {
      if (s) scope.value = 'selection';
      else if (scope.value === 'selection') scope.value = 'part';
    },
  );

  // Picking a ramp says that it is meant.
  watch(
    () => colours.picked,
    (p) => (ownTones.value = p.length < 2),
    { flush: 'sync' },
  );
  const ramp = computed<readonly number[]>(() =>
    ownTones.value ? [] : colours.picked.length > 0 ? colours.picked : build.swatch ? [build.swatch.byte] : [],
  );
  const targets = computed(() => {
    const p = session.project,
      part = session.part,
      layer = session.layer;
    if (!p || !part || !layer) return [];
    if (scope.value !== 'project') return [{ part: part.id, layer: layer.id, limit: build.limit }];
    return p.parts
      .filter((o) => !o.hidden && o.palette === part.palette)
      .flatMap((o) => o.layers.filter((l) => !l.hidden && !l.locked).map((l) => ({ part: o.id, layer: l.id })));
  });
  const within = computed(() => (scope.value === 'selection' ? selection.selected : null));
  const reach = computed(() =>
    session.project
      ? heightsOf(
          session.project,
          targets.value.map((t) => t.part),
          within.value,
        )
      : null,
  );
  /** Where a gradient goes while nobody has drawn it. */
  const line = computed(() => {
    if (ends.value) return ends.value;
    const r = reach.value,
      part = session.part;
    if (!r || !part) return null;
    const b = build.seen?.contentBox() ?? part.bounds;
    const [x, , z] = transformPoint(matrix.value, [b.min[0] + b.size[0] / 2, 0, b.min[2] + b.size[2] / 2]);
    return { from: [x, r.low, z] as Vec3, to: [x, r.high, z] as Vec3 };
  });
  const finish = computed<Finish | null>(() => finishNow());
  function finishNow(): Finish | null {
    const o = options,
      base = { ramp: ramp.value, seed: o.seed };
    if (ramp.value.length === 0 && !ownTones.value) return null;
    const laid = { sides: o.sides, upright: o.upright, joint: o.joint };
    switch (kind.value) {
      case 'gradient':
        return line.value && { ...base, kind: 'gradient', ...line.value, round: o.round, blend: o.blend };
      case 'speckle':
        return { ...base, kind: 'speckle', amount: o.amount, size: o.size };
      case 'dither':
        return { ...base, kind: 'dither', share: o.share, blend: o.blend === 'bands' ? 'ordered' : o.blend };
      case 'height':
        return reach.value && { ...base, kind: 'height', ...reach.value, blend: o.blend };
      case 'occlusion':
        return { ...base, kind: 'occlusion', reach: o.reach, strength: o.strength, blend: o.blend };
      case 'bricks':
        return { ...base, ...laid, kind: 'bricks', long: o.long, high: o.high, bond: o.bond, gap: o.gap };
      case 'planks':
        return { ...base, ...laid, kind: 'planks', long: o.plankLong, wide: o.wide, gap: o.plankGap, grain: o.grain };
    }
  }
  const args = computed(() =>
    finish.value && targets.value.length > 0
      ? {
          targets: targets.value,
          finish: finish.value,
          within: within.value,
          only: onlyHand.value && build.swatch ? [build.swatch.byte] : null,
        }
      : null,
  );
  const parts = computed(() => [...new Set(targets.value.map((t) => t.part))]);
  const cells = computed(() =>
    parts.value.reduce((n, id) => n + boxVolume(session.project!.parts.find((p) => p.id === id)!.bounds), 0),
  );

  // Tried out with every change: on the spot, or in a worker when that would be felt.
  let abort: AbortController | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  watch(
    [active, args, shown, () => session.project],
    () => {
      abort?.abort();
      clearTimeout(timer);
      busy.value = false;
      const a = args.value;
      if (!active.value || !shown.value || !a || !session.writable) {
        if (mine) session.preview = null;
        mine = false;
        return;
      }
      if (cells.value <= ON_THE_SPOT) {
        show(session.tryEdit(finishEdit, a, true));
        return;
      }
      busy.value = true;
      timer = setTimeout(() => {
        const stop = (abort = new AbortController());
        void session.tryInBackground(finishEdit, a, stop.signal).then((p) => {
          if (stop.signal.aborted) return;
          busy.value = false;
          show(p);
        }, notices.fail);
      }, 160);
    },
    { flush: 'post' },
  );
  let mine = false;
  const show = (p: typeof session.preview): void => {
    session.preview = p;
    mine = p !== null;
  };

  function paint(): void {
    const a = args.value;
    if (!a) return;
    shown.value = false;
    if (cells.value <= ON_THE_SPOT) session.apply(finishEdit, a);
    else void session.applyInBackground(finishEdit, a);
  }
  return { kind, scope, onlyHand, ownTones, shown, busy, options, ends, active, ramp, line, finish, args, paint };
});
