import type { GlbCounts } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { download, fileName } from '../../shell/project-files';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { sharedPool } from '../../workers/pool';
import { JobCancelled } from '../../workers/protocol';

/** The GLB of the project as it stands, made in a worker. */
export const useShip = defineStore('ship', () => {
  const session = useSession();
  const notices = useNotices();
  const made = shallowRef<{
    project: Project;
    bytes: Uint8Array<ArrayBuffer>;
    counts: GlbCounts;
    notes: readonly string[];
  } | null>(null);
  const working = ref(false);
  let abort: AbortController | null = null;

  /** Makes the file anew unless it is of this very project already. */
  async function make(): Promise<boolean> {
    const project = session.project;
    if (!project) return false;
    if (made.value?.project === project) return true;
    abort?.abort();
    abort = new AbortController();
    working.value = true;
    try {
      const out = await sharedPool().run('glb', (sent) => ({ project: sent.packProject(project) }), {
        signal: abort.signal,
      });
      made.value = { project, ...out };
      return true;
    } catch (e) {
      made.value = null;
      if (!(e instanceof JobCancelled)) notices.fail(e);
      return false;
    } finally {
      working.value = false;
    }
  }
  async function save(): Promise<void> {
    if (await make()) {
      download(`${fileName(session.project!.name)}.glb`, made.value!.bytes, 'model/gltf-binary');
      for (const n of made.value!.notes) notices.say(n);
    }
  }
  return { made, working, make, save };
});
