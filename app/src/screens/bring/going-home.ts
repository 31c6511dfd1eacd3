import { type Id, type Project, find } from '@sphalerite/core/model';
import {
  type Site,
  bringPartsEdit,
  bringToSceneEdit,
  madeWith,
  makeAgainEdit,
  partsOfSameName,
  takeHomeEdit,
} from '@sphalerite/core/project';
import { type Ref, computed, ref } from 'vue';
import { useSession } from '../../stores/session';

interface Made {
  readonly project: Project;
  readonly facts: Readonly<Record<string, readonly number[]>>;
}

/**
 * What comes back cube for cube, and what is made again, can go into the parts that it was, or beside them.
 *
 * @param again – the part that is made again; null for what comes for the first time
 */
export function goingHome(made: Ref<Made | null>, into: Ref<string | null>, again: Ref<Id | null>) {
  const session = useSession();
  /** Parts here that would take the cubes that come. */
  const namesakes = computed(() => {
    const { project } = session;
    if (!made.value || !project) return 0;
    const part = find(project.parts, again.value);
    if (part) return Math.min(madeWith(project, part).length, made.value.project.parts.length);
    return made.value.facts['exact']?.length ? partsOfSameName(project, made.value.project).length : 0;
  });
  /** Null while nothing was said. */
  const home = ref<boolean | null>(null);
  const goesHome = computed(
    () => namesakes.value > 0 && (home.value ?? namesakes.value * 2 >= (made.value?.project.parts.length ?? 0)),
  );
  /** Puts what was made into the project, as one step; false where that was refused. */
  function put({ project: source, facts }: Made, site?: Site): boolean {
    const placed = facts['pivots']?.[0] === 1 ? 'pivot' : 'place';
    const done = !goesHome.value
      ? site && source.rig.bones.length === 0
        ? session.apply(bringToSceneEdit, { source, into: into.value, site }, placedLast(site))
        : session.apply(bringPartsEdit, { source, into: into.value })
      : again.value
        ? session.apply(makeAgainEdit, { source, part: again.value })
        : session.apply(takeHomeEdit, { source, placed, rest: true });
    if (done) home.value = null;
    return done;
  }
  return { namesakes, home, goesHome, put };
}

/** What was placed by itself, or the group of all that came. */
const placedLast = (site: Site) => (now: Project) => {
  const all = find(now.scenes, site.scene)!.placements.flat();
  return { scene: site.scene, placement: all.at(-1)!.parent ?? all.at(-1)!.id };
};
