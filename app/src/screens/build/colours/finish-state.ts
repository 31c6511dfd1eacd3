import type { Finish, FinishKind } from '@sphalerite/core/paint';
import { finishEdit } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { type ComputedRef, type Ref, computed, reactive, ref, watch } from 'vue';
import { useNotices } from '../../../stores/notices';
import { onOtherProject } from '../../../stores/project-settings';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useColours } from './colours-state';
import { FIRST_OPTIONS, type FinishOptions, finishOf } from './finish-options';
import { useFinishScope } from './finish-scope';

/** Cells that a finish is tried out on with every change; more are painted in a worker. */
const ON_THE_SPOT = 250_000;
/** Milliseconds for which the hand must rest before a worker tries out. */
const REST = 160;
type FinishArgs = Parameters<typeof finishEdit.run>[1];

/** Tries the finish out with every change: on the spot, or in a worker when that would be felt. */
function useTryOut(args: ComputedRef<FinishArgs | null>, cells: ComputedRef<number>, wanted: () => boolean) {
  const session = useSession();
  const notices = useNotices();
  const busy = ref(false);
  let abort: AbortController | null = null;
  let timer: ReturnType<typeof setTimeout> | undefined;
  /** Whether what the view tries out is a finish. */
  let mine = false;
  function show(p: typeof session.preview): void {
    if (p || mine) session.preview = p;
    mine = p !== null;
  }
  async function inBackground(a: FinishArgs, stop: AbortController): Promise<void> {
    try {
      const project = await session.tryInBackground(finishEdit, a, stop.signal);
      if (stop.signal.aborted) return;
      busy.value = false;
      show(project);
    } catch (e) {
      notices.fail(e);
    }
  }
  watch(
    [wanted, args, () => session.project],
    () => {
      abort?.abort();
      clearTimeout(timer);
      busy.value = false;
      const a = args.value;
      if (!wanted() || !a || !session.writable) return show(null);
      if (cells.value <= ON_THE_SPOT) return show(session.tryEdit(finishEdit, a, true));
      busy.value = true;
      timer = setTimeout(() => void inBackground(a, (abort = new AbortController())), REST);
    },
    { flush: 'post' },
  );
  return busy;
}

/** The swatches a finish is made of: those that are picked, or each cube's own tones. */
function useRamp(ownTones: Ref<boolean>): ComputedRef<readonly number[]> {
  const colours = useColours();
  // Picking a ramp says that it is meant.
  watch(
    () => colours.picked,
    (p) => (ownTones.value = p.length < 2),
    { flush: 'sync' },
  );
  return computed(() => (ownTones.value ? [] : colours.meant));
}

/** The finish that is being tried out: shown in the view as if it were done, until it is painted or let go. */
export const useFinish = defineStore('finish', () => {
  const session = useSession();
  const build = useBuild();
  const colours = useColours();
  const { scope, ends, targets, cells, within, heights, extent, line } = useFinishScope();
  const kind = ref<FinishKind>('gradient');
  const onlyHand = ref(false);
  const ownTones = ref(true);
  const shown = ref(false);
  const options = reactive<FinishOptions>({ ...FIRST_OPTIONS });
  // What suited another project's bricks is no beginning for this one's.
  onOtherProject(() => {
    kind.value = 'gradient';
    scope.value = 'part';
    onlyHand.value = shown.value = false;
    Object.assign(options, FIRST_OPTIONS);
  });
  const active = computed(() => colours.tab === 'finish' && session.part !== null);
  const ramp = useRamp(ownTones);
  const finish = computed<Finish | null>(() =>
    ramp.value.length === 0 && !ownTones.value
      ? null
      : finishOf(kind.value, options, ramp.value, { line: line.value, heights: heights.value, extent: extent.value }),
  );
  const args = computed<FinishArgs | null>(() => {
    if (!finish.value || targets.value.length === 0) return null;
    const only = onlyHand.value && build.swatch ? [build.swatch.byte] : null;
    return { targets: targets.value, finish: finish.value, within: within.value, only };
  });
  const busy = useTryOut(args, cells, () => active.value && shown.value);
  function paint(): void {
    const a = args.value;
    if (!a) return;
    shown.value = false;
    if (cells.value <= ON_THE_SPOT) session.apply(finishEdit, a);
    else void session.applyInBackground(finishEdit, a);
  }
  return {
    kind,
    scope,
    onlyHand,
    ownTones,
    shown,
    busy,
    options,
    ends,
    active,
    ramp,
    line,
    heights,
    finish,
    args,
    paint,
  };
});
