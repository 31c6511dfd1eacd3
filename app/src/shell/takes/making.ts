import { type TakePlan, type WrittenFile, pictureOf, seriesOf } from '@sphalerite/core/files';
import type { Project, Shot } from '@sphalerite/core/model';
import { db } from '../../storage/database';
import { sharedPool } from '../../workers/pool';
import type { Drawing } from './drawing';
import type { Take } from './takes';

/** What a shot becomes, worked out beside the page: how far figures reach in many poses takes a while. */
export const planned = (project: Project, shot: Shot, signal: AbortSignal): Promise<TakePlan> =>
  sharedPool().run(
    'takePlan',
    (sent) => ({ project: sent.packProject(project), shot: JSON.parse(JSON.stringify(shot)) as Shot }),
    { signal },
  );

/** All pictures of a plan, those that are kept already and the rest as they come, each kept at once. @param unkept – those that are in memory alone, because the disk was full */
export async function makePictures(
  take: Pick<Take, 'id' | 'made' | 'left'>,
  plan: TakePlan,
  project: Project,
  signal: AbortSignal,
  unkept: ReadonlyMap<number, Uint8Array<ArrayBuffer>>,
  keep: (take: string, index: number, png: Uint8Array<ArrayBuffer>) => Promise<void>,
): Promise<Uint8Array<ArrayBuffer>[]> {
  const pngs = new Map<number, Uint8Array<ArrayBuffer>>(unkept);
  const kept = await db.takeFrames
    .where(':id')
    .between([take.id, 0], [take.id, Infinity])
    .toArray()
    .catch(() => []);
  for (const { index, png } of kept) if (index < plan.count) pngs.set(index, png);
  take.made = pngs.size;
  const missing = Array.from({ length: plan.count }, (_, i) => i).filter((i) => !pngs.has(i));
  const began = performance.now();
  let made = 0;
  const drawing = missing.length > 0 && (await drawerFor(plan));
  const lane = async (): Promise<void> => {
    for (let i = missing.shift(); i !== undefined; i = missing.shift()) {
      const { shot, groundAlone } = pictureOf(plan, i);
      const input = JSON.parse(JSON.stringify(shot)) as Shot;
      const png = drawing
        ? await drawing.png(project, shot, groundAlone, signal)
        : await sharedPool().run(
            'frame',
            (sent) => ({ project: sent.packProject(project), shot: input, groundAlone }),
            { signal },
          );
      pngs.set(i, png);
      take.made++;
      take.left = ((performance.now() - began) / 1000 / ++made) * missing.length;
      await keep(take.id, i, png);
    }
  };
  try {
    await Promise.all(Array.from({ length: sharedPool().size }, lane));
  } finally {
    if (drawing) drawing.dispose();
  }
  return Array.from({ length: plan.count }, (_, i) => pngs.get(i)!);
}

/** Whoever draws the pictures of a plan in place of tracing them; fetched when it is needed. */
const drawerFor = async ({ frames }: TakePlan): Promise<Drawing | null> =>
  frames[0]?.shot.output.drawn ? new (await import('./drawing')).Drawing() : null;

/** What its pictures become. */
export async function takeFiles(
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
