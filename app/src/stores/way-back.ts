import { type Id, placementsOf } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import type { ChosenKind } from '../storage/view-state';
import type { CameraState } from '../viewport/orbit-camera';
import { runCommand } from './commands';
import { type Spot, useInPlace } from './in-place';
import { onOtherProject } from './project-settings';
import { useSession } from './session';
import { useView } from './view';

/** Where a part was opened from: the screen, what was chosen there, and how one looked at it. */
interface Place {
  readonly screen: string;
  readonly title: string;
  readonly chosen: Readonly<Record<ChosenKind, readonly Id[]>>;
  readonly camera: CameraState | null;
}

/** From a whole to one of its parts in Build, and by one key back to where one was. */
export const useWayBack = defineStore('way back', () => {
  const session = useSession();
  const view = useView();
  const inPlace = useInPlace();
  const from = shallowRef<Place | null>(null);
  onOtherProject(() => (from.value = null));

  /** Opens a part in Build; among its neighbours where `spot` says where that is. */
  async function open(part: Id, spot: Spot | null = null): Promise<void> {
    inPlace.spot = spot;
    if (view.screen !== 'build')
      from.value = {
        screen: view.screen,
        title: session.where,
        chosen: session.view.chosen,
        camera: view.viewport?.camera.state() ?? null,
      };
    session.choose({ part, layer: null });
    await runCommand('go.build');
  }
  /** Back to where the part was opened from; what is gone meanwhile is no longer chosen. */
  async function back(): Promise<void> {
    const place = from.value;
    if (!place) return;
    from.value = inPlace.spot = null;
    await runCommand(`go.${place.screen}`);
    const { bone, clip, scene, placement, shot } = place.chosen,
      p = session.project;
    const there = (ids: readonly Id[], list: readonly { readonly id: Id }[] = []): Id[] =>
      ids.filter((id) => list.some((r) => r.id === id));
    session.choose({
      bone: there(bone, p?.rig.bones),
      clip: there(clip, p?.clips),
      scene: there(scene, p?.scenes),
      shot: there(shot, p?.shots),
    });
    session.choose({ placement: there(placement, session.scene ? placementsOf(session.scene) : []) });
    if (place.camera) view.viewport?.camera.restore(place.camera);
    view.viewport?.invalidate();
  }
  return { from, open, back };
});
