import type { Mat4 } from '@sphalerite/core/math';
import type { Id, Project } from '@sphalerite/core/model';
import type { DrawInstance, DrawList, InstanceSource } from '@sphalerite/core/scene';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import { onOtherProject } from './project-settings';
import { useSession } from './session';

/** Where a part stands that is worked on among its neighbours; told by the screen that it was opened from. */
export interface Spot {
  /** All that stands there, asked as the project is and as it is shown. */
  readonly list: (project: Project) => DrawList;
  readonly shown: (project: Project) => DrawList;
  readonly at: Pick<InstanceSource, 'path' | 'mount' | 'copy'>;
  /** From the whole to what shows the part. */
  readonly trail: (at: Spot['at']) => readonly string[];
  /** Gives what stands there a part of its own; the part then, null where that cannot be. */
  readonly own: ((at: Spot['at']) => Id | null) | null;
}

const same = (a: Spot['at'], b: Spot['at']): boolean =>
  a.path[0] === b.path[0] && a.mount === b.mount && a.copy === b.copy;

/** A part worked on in its place in a scene. */
export const useInPlace = defineStore('in place', () => {
  const session = useSession();
  const spot = shallowRef<Spot | null>(null);
  onOtherProject(() => (spot.value = null));

  /** What of a list shows the part in hand there: the one that was opened, else the first that shows it as it is. */
  function instanceIn(list: DrawList): DrawInstance | null {
    const { at } = spot.value!,
      mine = list.filter((i) => i.source.part === session.hand.part && i.source.path.length === 1);
    return mine.find((i) => same(i.source, at)) ?? mine[0] ?? null;
  }
  /** Where it stands; null while no part is worked on in its place. */
  const matrix = computed<Mat4 | null>(
    () => (spot.value && session.project && instanceIn(spot.value.list(session.project))?.matrix) ?? null,
  );
  /** All that stands there while the part in hand is among it. */
  const seen = computed<{ readonly list: DrawList; readonly own: DrawInstance } | null>(() => {
    const project = session.shown;
    if (!spot.value || !project || !matrix.value) return null;
    const list = spot.value.shown(project),
      own = instanceIn(list);
    return own && { list, own };
  });
  /** The next part, in its own place. */
  function go(to: InstanceSource): void {
    if (!spot.value || to.part === null) return;
    spot.value = { ...spot.value, at: to };
    session.choose({ part: to.part, layer: null });
  }
  /** What is in hand gets a part of its own, and the others keep theirs. */
  function own(): void {
    const part = spot.value?.own?.(spot.value.at);
    if (part) session.choose({ part, layer: null });
  }
  return { spot, matrix, seen, go, own };
});
