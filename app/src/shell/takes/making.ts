import { type TakePlan, type WrittenFile, pictureOf, seriesOf } from '@sphalerite/core/files';
import type { Project, Shot } from '@sphalerite/core/model';
import { isLarge } from '@sphalerite/core/takes';
import { db } from '../../storage/database';
import { sharedPool } from '../../workers/pool';
import type { Handed } from '../files/exporting';
import type { Drawing } from './drawing';
import type { KeptTake } from './kept';
import { LargePicture, onAllLanes } from './large';
import { LargeWriter } from './large-files';
import type { Take } from './takes';

/** Makes what is missing of a take, and what its pictures become. @throws JobCancelled when it is stopped */
export async function filesOfTake(
  take: Take,
  project: Project,
  shot: Shot,
  kept: KeptTake,
  signal: AbortSignal,
): Promise<readonly Handed[]> {
  const begins = (count: number) => db.takes.update(take.id, { stopped: false, count }).catch(() => 0);
  if (isLarge(shot.output)) {
    const picture = new LargePicture(take, project, shot, kept, signal);
    await begins(take.count);
    await picture.make();
    return new LargeWriter(take.title, shot, picture.plan, kept, signal).files();
  }
  const plan = await planned(project, shot, signal);
  take.count = plan.count;
  await begins(plan.count);
  return takeFiles(take.title, shot, plan, await makePictures(take, plan, project, signal, kept), signal);
}

/** What a shot becomes, worked out beside the page: how far figures reach in many poses takes a while. */
const planned = (project: Project, shot: Shot, signal: AbortSignal): Promise<TakePlan> =>
  sharedPool().run(
    'takePlan',
    (sent) => ({ project: sent.packProject(project), shot: JSON.parse(JSON.stringify(shot)) as Shot }),
    { signal },
  );

/** All pictures of a plan, those that are kept already and the rest as they come, each kept at once. */
async function makePictures(
  take: Pick<Take, 'made' | 'left'>,
  plan: TakePlan,
  project: Project,
  signal: AbortSignal,
  { frames }: KeptTake,
): Promise<Uint8Array<ArrayBuffer>[]> {
  const pngs = new Map<number, Uint8Array<ArrayBuffer>>();
  for (const i of await frames.indexes()) if (i < plan.count) pngs.set(i, (await frames.get(i))!.png);
  take.made = pngs.size;
  const missing = Array.from({ length: plan.count }, (_, i) => i).filter((i) => !pngs.has(i));
  const began = performance.now();
  let made = 0;
  const drawing = missing.length > 0 && (await drawerFor(plan));
  const one = async (i: number): Promise<void> => {
    const { shot, groundAlone } = pictureOf(plan, i);
    const input = JSON.parse(JSON.stringify(shot)) as Shot;
    const png = drawing
      ? await drawing.png(project, shot, groundAlone, signal)
      : await sharedPool().run('frame', (sent) => ({ project: sent.packProject(project), shot: input, groundAlone }), {
          ...{ signal, patient: true },
        });
    pngs.set(i, png);
    take.made++;
    made++;
    take.left = ((performance.now() - began) / 1000 / made) * (missing.length - made);
    await frames.put(i, { png });
  };
  try {
    await onAllLanes(missing, one);
  } finally {
    if (drawing) drawing.dispose();
  }
  return Array.from({ length: plan.count }, (_, i) => pngs.get(i)!);
}

/** Whoever draws the pictures of a plan in place of tracing them; fetched when it is needed. */
const drawerFor = async ({ frames }: TakePlan): Promise<Drawing | null> =>
  frames[0]?.shot.output.drawn ? new (await import('./drawing')).Drawing() : null;

/** What its pictures become. */
async function takeFiles(
  name: string,
  shot: Shot,
  plan: TakePlan,
  pngs: readonly Uint8Array<ArrayBuffer>[],
  signal: AbortSignal,
): Promise<readonly WrittenFile[]> {
  const { makes, series, fps, sprites } = shot.output;
  const source = seriesOf(name, shot, plan, pngs);
  const by = async (exporter: string, options: object): Promise<readonly WrittenFile[]> =>
    (await sharedPool().run('series', () => ({ exporter, source, options }), { signal })).files;
  if (makes === 'sprites') {
    const { trim, padding } = sprites;
    return by('sprites', { trim, padding });
  }
  if (series === 'webm' || series === 'mp4')
    return (await sharedPool().run('video', () => ({ kind: series, source, fps }), { signal })).files;
  return by(series === 'zip' ? 'frames' : 'gif', {});
}
