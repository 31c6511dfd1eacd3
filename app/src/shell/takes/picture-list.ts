import { shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import type { Picture } from './picture-growth';
import { forgetPicture, forgetTracing, keptPictures } from './picture-storage';

/** Pixels that pictures of a project may have together: light, what was met first and the same without noise are 80 bytes a pixel. */
const MOST_PIXELS = 5_000_000;

/** Pictures of the project that is open, those from before as well, the newest first; and those of others that are not done. */
export function pictureList() {
  const session = useSession();
  const pictures = shallowRef<Picture[]>([]);

  /** Shows these, of each project as many as there is room for; others are let go of for good. */
  function list(all: readonly Picture[]): void {
    const used = new Map<string, number>();
    pictures.value = all.filter((p) => {
      const before = used.get(p.project.id) ?? 0,
        now = before + p.film.width * p.film.height;
      used.set(p.project.id, now);
      if (before === 0 || now <= MOST_PIXELS) return true;
      URL.revokeObjectURL(p.url);
      void forgetPicture(p.id);
      void forgetTracing(p.id).catch(() => undefined);
      return false;
    });
  }
  /** What was made of a project before. */
  watch(
    () => session.project?.id,
    async () => {
      const { project } = session;
      if (!project) return;
      const kept = await keptPictures(project);
      // Another may have been opened, or a picture finished, meanwhile.
      if (session.project?.id !== project.id) return;
      // Those of another come again with it.
      const here = pictures.value.filter((p) => p.project.id === project.id || !p.done),
        known = new Set(here.map((p) => p.id));
      list([...here, ...kept.filter((p) => !known.has(p.id))]);
    },
    { immediate: true },
  );

  return { pictures, list };
}
