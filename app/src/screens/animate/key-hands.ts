import { type Bone, type Id, TICKS } from '@sphalerite/core/model';
import { type KeyRef, type keyTimes, retimed } from '@sphalerite/core/motion';
import { retimeEdit, shiftKeysEdit } from '@sphalerite/core/project';
import { type Ref, computed, ref } from 'vue';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';

/** Keys of a lane that stand at one moment. */
export type Drawn = ReturnType<typeof keyTimes>[number];
export interface BoneLane {
  readonly bone: Bone;
  readonly keys: readonly Drawn[];
}

/**
 * Keys in lanes as hand and keyboard take them: chosen, moved, drawn apart.
 *
 * @param usable – pixels for the length of the clip
 */
export function useKeyHands(lanes: Readonly<Ref<readonly BoneLane[]>>, usable: Readonly<Ref<number>>) {
  const session = useSession();
  const anim = useAnimate();
  const marked = computed(() => {
    const out = new Map<Id, Set<number>>();
    for (const k of anim.chosen) (out.get(k.bone) ?? out.set(k.bone, new Set()).get(k.bone)!).add(k.time);
    return out;
  });
  const isChosen = (bone: Id, time: number): boolean => marked.value.get(bone)?.has(time) ?? false;
  const refsOf = (
    bone: Id,
    key: { readonly time: number; readonly channels: readonly KeyRef['channel'][] },
  ): KeyRef[] => key.channels.map((channel) => ({ bone, channel, time: key.time }));

  let drag: { readonly from: number; readonly key: number; moved: boolean; readonly scale: boolean } | null = null;
  const shift = ref(0);
  /** While keys are drawn apart: by how much, about the moment that is shown. */
  const factor = ref(1);
  function grab(e: PointerEvent, bone: Id, key: Drawn): void {
    session.choose({ bone });
    const refs = refsOf(bone, key);
    if (e.shiftKey)
      anim.chosen = isChosen(bone, key.time)
        ? anim.chosen.filter((k) => k.bone !== bone || k.time !== key.time)
        : [...anim.chosen, ...refs];
    else if (!isChosen(bone, key.time)) anim.chosen = refs;
    drag = { from: e.clientX, key: key.time, moved: false, scale: e.altKey && key.time !== anim.time };
    (e.currentTarget as Element).setPointerCapture(e.pointerId);
  }
  function pull(e: PointerEvent): void {
    const c = anim.clip;
    if (!drag || !c) return;
    const frame = TICKS / c.fps;
    const by = Math.round((((e.clientX - drag.from) / usable.value) * c.length) / frame) * frame;
    if (drag.scale) factor.value = Math.max(0.05, (drag.key + by - anim.time) / (drag.key - anim.time));
    else shift.value = by;
    if (by !== 0) drag.moved = true;
  }
  function drop(key: { readonly time: number }): void {
    const c = session.clip;
    if (drag && c && factor.value !== 1) {
      const by = factor.value,
        about = anim.time;
      const how = { about, by, frames: anim.wholeFrames };
      if (session.apply(retimeEdit, { clip: c.id, keys: [...anim.chosen], ...how }))
        anim.chosen = anim.chosen.map((k) => ({ ...k, time: retimed(c, k.time, how) }));
    } else if (drag && c && shift.value !== 0) {
      let early = Infinity,
        late = -Infinity;
      for (const k of anim.chosen) {
        early = Math.min(early, k.time);
        late = Math.max(late, k.time);
      }
      const d = Math.round(Math.max(-early, Math.min(c.length - late, shift.value)));
      if (session.apply(shiftKeysEdit, { clip: c.id, keys: [...anim.chosen], delta: d }))
        anim.chosen = anim.chosen.map((k) => ({ ...k, time: k.time + d }));
    } else if (drag && !drag.moved) anim.scrub(key.time);
    drag = null;
    shift.value = 0;
    factor.value = 1;
  }
  /** Enter on a key chooses it, with Shift beside others; arrows move what is chosen by a frame. */
  function press(e: KeyboardEvent, bone: Id, key: Drawn): void {
    session.choose({ bone });
    const refs = refsOf(bone, key);
    anim.chosen = !e.shiftKey
      ? refs
      : isChosen(bone, key.time)
        ? anim.chosen.filter((k) => k.bone !== bone || k.time !== key.time)
        : [...anim.chosen, ...refs];
    anim.scrub(key.time);
  }
  function nudge(by: number): void {
    const c = session.clip;
    if (!c || anim.chosen.length === 0) return;
    const delta = Math.round((by * TICKS) / c.fps),
      times = anim.chosen.map((k) => k.time);
    if (Math.min(...times) + delta < 0 || Math.max(...times) + delta > c.length) return;
    if (session.apply(shiftKeysEdit, { clip: c.id, keys: [...anim.chosen], delta }))
      anim.chosen = anim.chosen.map((k) => ({ ...k, time: k.time + delta }));
  }
  /** A box from the key that has the keys to where Shift and the arrows led: over lanes, and from moment to moment with keys. */
  let keyBox: {
    readonly lane: number;
    readonly time: number;
    readonly toLane: number;
    readonly toTime: number;
  } | null = null;
  function extend(e: KeyboardEvent, lane: number, time: number): void {
    const from = keyBox?.lane === lane && keyBox.time === time ? keyBox : { lane, time, toLane: lane, toTime: time };
    const times = [...new Set(lanes.value.flatMap((l) => l.keys.map((k) => k.time)))].sort((a, b) => a - b),
      at = times.indexOf(from.toTime);
    const across = e.key === 'ArrowRight' ? 1 : e.key === 'ArrowLeft' ? -1 : 0,
      down = e.key === 'ArrowDown' ? 1 : e.key === 'ArrowUp' ? -1 : 0;
    const box = {
      ...from,
      toTime: times[at + across] ?? from.toTime,
      toLane: Math.max(0, Math.min(lanes.value.length - 1, from.toLane + down)),
    };
    keyBox = box;
    const [first, last] = [Math.min(box.lane, box.toLane), Math.max(box.lane, box.toLane)],
      [early, late] = [Math.min(box.time, box.toTime), Math.max(box.time, box.toTime)];
    anim.chosen = lanes.value
      .slice(first, last + 1)
      .flatMap(({ bone, keys }) =>
        keys.filter((k) => k.time >= early && k.time <= late).flatMap((k) => refsOf(bone.id, k)),
      );
  }
  /** Arrows on a key move what is chosen by a frame; with Shift they choose a box of keys. */
  function arrow(e: KeyboardEvent, bone: Id, time: number): void {
    const lane = lanes.value.findIndex((l) => l.bone.id === bone);
    if (e.shiftKey) extend(e, lane, time);
    else if (e.key === 'ArrowLeft' || e.key === 'ArrowRight') nudge(e.key === 'ArrowLeft' ? -1 : 1);
    else return;
    e.preventDefault();
    e.stopPropagation();
  }
  /** Where a chosen key stands while the hand is down. */
  const dragged = (time: number): number =>
    factor.value !== 1 && anim.clip
      ? retimed(anim.clip, time, { about: anim.time, by: factor.value, frames: anim.wholeFrames }) - time
      : 0;

  return { isChosen, refsOf, grab, pull, drop, press, arrow, dragged, shift };
}
