import type { Project, Shot } from '@sphalerite/core/model';
import { onUnmounted, shallowReactive, watch } from 'vue';
import { usePictures } from '../../shell/takes/pictures';
import { useSession } from '../../stores/session';
import { sharedPool } from '../../workers/pool';

/** Longest edge of the picture of a shot in the tray, and its samples. */
const EDGE = 112;
const SAMPLES = 8;
/** Milliseconds for which the workers must have nothing else to do. */
const REST = 600;

interface Small {
  readonly shot: Shot;
  readonly project: Project;
  readonly url: string;
}

/** Whether all that a shot could show is the same in two states of a project. */
const showsSame = (a: Project, b: Project): boolean =>
  (['parts', 'palettes', 'colourways', 'rig', 'clips', 'scenes', 'assets', 'blobs'] as const).every(
    (list) => a[list] === b[list],
  );
/** The shot with what a glance in the tray needs. */
function glance(shot: Shot): Shot {
  const { size } = shot.output,
    share = Math.min(1, EDGE / Math.max(...size));
  const [width, height] = size.map((v) => Math.max(1, Math.round(v * share))) as [number, number];
  const output = { makes: 'picture', size: [width, height], samples: SAMPLES, denoise: true, drawn: false } as const;
  return { ...shot, output: { ...shot.output, ...output } };
}

/** Small pictures of shots of which none was traced yet, made while there is nothing else to do. */
export function shotPictures(): (shot: string) => string | undefined {
  const session = useSession();
  const pictures = usePictures();
  const made = shallowReactive(new Map<string, Small>());
  let abort: AbortController | null = null;
  let timer = 0;

  const traced = (id: string): string | undefined => pictures.pictures.find((p) => p.shot.id === id)?.url;
  function missing(project: Project): Shot | undefined {
    return project.shots.find((s) => {
      const small = made.get(s.id);
      return !traced(s.id) && !(small && small.shot === s && showsSame(small.project, project));
    });
  }
  async function next(): Promise<void> {
    const { project } = session,
      shot = project && missing(project);
    if (!shot) return;
    if (sharedPool().busy > 0) return soon();
    const mine = (abort = new AbortController());
    const input = JSON.parse(JSON.stringify(glance(shot))) as Shot;
    const png = await sharedPool()
      .run('frame', (sent) => ({ project: sent.packProject(project), shot: input, groundAlone: false }), {
        signal: mine.signal,
      })
      // A shot that cannot be traced says so when it is asked for; here its place stays empty.
      .catch(() => null);
    if (mine.signal.aborted) return;
    const before = made.get(shot.id);
    if (before) URL.revokeObjectURL(before.url);
    made.set(shot.id, {
      ...{ shot, project },
      url: png ? URL.createObjectURL(new Blob([png], { type: 'image/png' })) : '',
    });
    soon();
  }
  /** Looks again for what is missing, once nothing changes any more. */
  function soon(): void {
    clearTimeout(timer);
    abort?.abort();
    timer = window.setTimeout(() => void next(), REST);
  }
  watch([() => session.project, () => pictures.making, () => pictures.pictures.length], soon, { immediate: true });
  onUnmounted(() => {
    clearTimeout(timer);
    abort?.abort();
    for (const { url } of made.values()) URL.revokeObjectURL(url);
  });
  return (id) => traced(id) ?? (made.get(id)?.url || undefined);
}
