import type { Project } from '@sphalerite/core/model';
import { bringPartsEdit, partsOfSameName, takeHomeEdit } from '@sphalerite/core/project';
import { type Ref, computed, ref } from 'vue';
import { useSession } from '../../stores/session';

interface Made {
  readonly project: Project;
  readonly facts: Readonly<Record<string, readonly number[]>>;
}

/** What comes back cube for cube can go into the parts that it was, or beside them. */
export function goingHome(made: Ref<Made | null>, into: Ref<string | null>) {
  const session = useSession();
  /** Parts here that bear the names of what comes. */
  const namesakes = computed(() =>
    made.value?.facts['exact']?.length && session.project
      ? partsOfSameName(session.project, made.value.project).length
      : 0,
  );
  /** Null while nothing was said. */
  const home = ref<boolean | null>(null);
  const goesHome = computed(
    () => namesakes.value > 0 && (home.value ?? namesakes.value * 2 >= (made.value?.project.parts.length ?? 0)),
  );
  /** Puts what was made into the project, as one step; false where that was refused. */
  function put({ project: source, facts }: Made): boolean {
    const placed = facts['pivots']?.[0] === 1 ? 'pivot' : 'place';
    const done = goesHome.value
      ? session.apply(takeHomeEdit, { source, placed, rest: true })
      : session.apply(bringPartsEdit, { source, into: into.value });
    if (done) home.value = null;
    return done;
  }
  return { namesakes, home, goesHome, put };
}
