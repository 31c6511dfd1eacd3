import type { Id, Project } from '@sphalerite/core/model';
import type { Clash, ContactReport } from '@sphalerite/core/scene';
import { defineStore } from 'pinia';
import { ref, shallowRef, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { JobCancelled } from '../../workers/protocol';
import { sharedPool } from '../../workers/pool';

/** What the parts do to the ground and to each other in one clip. */
export interface ClipContact {
  readonly contact: ContactReport;
  readonly clashes: readonly Clash[];
}
/** How bad a clip is, to list the worst first. Cubes in cloth are common and count little beside a foot in the ground. */
export const badness = ({ contact, clashes }: ClipContact): number =>
  contact.depth.by + contact.slide.by + (clashes[0]?.cubes ?? 0) / 60;
/** The frame at which a clip is at its worst. */
export const worstFrame = ({ contact, clashes }: ClipContact): number => {
  if (contact.depth.by < 0.05 && contact.slide.by < 0.1 && clashes[0]) return clashes[0].frame;
  return contact.depth.by > contact.slide.by ? contact.depth.frame : contact.slide.frame;
};

/** Contacts of the clips of the open project, measured in a worker when they are asked for and forgotten when something moves. */
export const useClipContacts = defineStore('clip contacts', () => {
  const session = useSession();
  const notices = useNotices();
  const rows = shallowRef<ReadonlyMap<Id, ClipContact>>(new Map());
  const busy = ref(false);
  /** Whether the ground stands still under a figure that walks on the spot. */
  const still = ref(false);
  /** Whether lists of clips at a bone have the worst first. */
  const sorted = ref(false);
  let stop: AbortController | null = null;
  const moving = (p: Project | null) => [p?.clips, p?.rig, p?.parts, still.value];
  watch(
    () => moving(session.project),
    (now, before) => {
      if (now.some((v, i) => v !== before[i])) rows.value = new Map();
    },
  );
  async function check(clips: readonly Id[]): Promise<void> {
    const project = session.project;
    if (!project || clips.length === 0) return;
    stop?.abort();
    const mine = (stop = new AbortController());
    busy.value = true;
    try {
      const found = await sharedPool().run(
        'motion',
        (sent) => ({ project: sent.packProject(project), clips, ground: still.value ? ([0, 0] as const) : null }),
        { signal: mine.signal },
      );
      if (moving(session.project).some((v, i) => v !== moving(project)[i])) return;
      rows.value = new Map([...rows.value, ...found.map((r) => [r.contact.clip, r] as const)]);
    } catch (e) {
      if (!(e instanceof JobCancelled)) notices.fail(e);
    } finally {
      if (stop === mine) busy.value = false;
    }
  }
  return { rows, busy, still, sorted, check, stop: () => stop?.abort() };
});
