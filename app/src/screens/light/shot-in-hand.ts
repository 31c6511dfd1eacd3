import type { Camera, Grade, Light, Output, Shot, ShotStage } from '@sphalerite/core/model';
import { editShotEdit } from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { useSession } from '../../stores/session';

type Change = Partial<Omit<Shot, 'id'>>;
/** What of a shot is changed: a group of its settings by name, and some of them. */
type Groups = { camera: Camera; light: Light; stage: ShotStage; grade: Grade; output: Output };

/** The shot in hand as it is shown: with what a hand is dragging and has not let go of yet. */
export const useShot = defineStore('shot in hand', () => {
  const session = useSession();
  const dragged = shallowRef<Change | null>(null);
  const shot = computed<Shot | null>(() =>
    session.shot && dragged.value ? { ...session.shot, ...dragged.value } : session.shot,
  );
  /** One step of the history. */
  function change(more: Change): void {
    dragged.value = null;
    if (session.shot) session.apply(editShotEdit, { shot: session.shot.id, change: more });
  }
  const within = <K extends keyof Groups>(group: K, more: Partial<Groups[K]>): Change => ({
    [group]: { ...(session.shot![group] as Groups[K]), ...more },
  });
  const set = <K extends keyof Groups>(group: K, more: Partial<Groups[K]>): void => change(within(group, more));
  /** Shows a change while it is dragged; {@link set} makes it, and anything else lets it go. */
  const drag = <K extends keyof Groups>(group: K, more: Partial<Groups[K]>): void =>
    void (dragged.value = within(group, more));
  const light = <K extends keyof Light>(part: K, more: Partial<Light[K]>): void =>
    set('light', { [part]: { ...session.shot!.light[part], ...more } } as Partial<Light>);
  const dragLight = <K extends keyof Light>(part: K, more: Partial<Light[K]>): void =>
    drag('light', { [part]: { ...session.shot!.light[part], ...more } } as Partial<Light>);
  const letGo = (): void => void (dragged.value = null);
  return { shot, change, set, drag, light, dragLight, letGo };
});
