import { dirname, extname, join } from 'node:path';
import { type WrittenFile, QUIET_JOB, exporterOf, fileName, pictureOf, planOf, seriesOf } from '@sphalerite/core/files';
import { finish } from '@sphalerite/core/math';
import { type Makes, type Project, type Shot, makeOutput } from '@sphalerite/core/model';
import {
  addTraced,
  bandsOf,
  denoiseSteps,
  filmAbout,
  joined,
  guided,
  lightOf,
  makeFilm,
  traceCamera,
} from '@sphalerite/core/render';
import { takeProblem } from '@sphalerite/core/takes';
import { CliError, openProject, writeWhole } from './io';
import { RenderThreads } from './render-threads';

export interface RenderOptions {
  readonly shot?: string;
  readonly size?: [number, number];
  readonly samples?: number;
  readonly noise?: number;
  readonly denoise?: boolean;
  readonly clip?: string | true;
  readonly turntable?: boolean;
  readonly path?: boolean;
  readonly sprites?: boolean;
  readonly passes?: boolean;
  readonly fps?: number;
  readonly out: string;
}

/** Pixels of a band that noise is taken out of at once. */
const BAND_PIXELS = 2_000_000;

/** Kinds of pictures, and of what moves, by the ending of the file. */
const PICTURES: Readonly<Record<string, string>> = { '.png': 'png', '.jpg': 'jpeg', '.jpeg': 'jpeg', '.exr': 'exr' };
const SERIES: Readonly<Record<string, string>> = { '.gif': 'gif', '.zip': 'frames' };
const IN_BROWSER = ['.webm', '.mp4', '.webp'];

/** The shot that is meant, with what was said of it. */
function shotOf(project: Project, file: string, options: RenderOptions): Shot {
  const shot = options.shot === undefined ? project.shots[0] : project.shots.find((s) => s.name === options.shot);
  if (!shot) {
    const names = project.shots.map((s) => `"${s.name}"`).join(', ') || 'none';
    throw new CliError(`${file}: there is no shot "${options.shot ?? ''}". Shots in this project: ${names}.`);
  }
  const makes: Makes = options.sprites
    ? 'sprites'
    : options.turntable || options.path
      ? 'path'
      : options.clip
        ? 'clip'
        : 'picture';
  const { size, samples, noise = samples ? 0 : undefined, fps } = options;
  if (noise !== undefined && !(noise >= 0 && noise <= 1))
    throw new CliError('--noise is a share from 0 to 1; 0.05 leaves one part in twenty.');
  const output = makeOutput({
    ...{ ...shot.output, makes, denoise: options.denoise ?? false },
    ...(size ? { size } : {}),
    ...(samples ? { samples } : {}),
    ...(noise === undefined ? {} : { noise }),
    ...(fps ? { fps } : {}),
    ...(options.turntable ? { path: { ...shot.output.path, kind: 'turntable', reach: 360 } } : {}),
  });
  // Lines are as wide as they are in the picture that the shot means.
  const { outline } = shot.grade,
    grade = { ...shot.grade, outline: { ...outline, width: (outline.width * output.size[0]) / shot.output.size[0] } };
  if (typeof options.clip !== 'string') return { ...shot, grade, output };
  const clip = project.clips.find((c) => c.name === options.clip);
  if (clip) return { ...shot, clip: clip.id, time: 0, grade, output };
  const names = project.clips.map((c) => `"${c.name}"`).join(', ') || 'none';
  throw new CliError(`${file}: there is no clip "${options.clip}". Clips in this project: ${names}.`);
}

/** Files as they were asked for: the first under the name that was given, the rest beside it. */
function written(out: string, files: readonly WrittenFile[]): void {
  const own = out.slice(0, out.length - extname(out).length);
  const stem = files[0]!.name.split('.')[0]!;
  for (const [i, f] of files.entries())
    writeWhole(i === 0 ? out : join(dirname(out), f.name.replace(stem, own.split('/').pop()!)), f.bytes);
}
const told = (share: string): void => {
  if (process.stderr.isTTY) process.stderr.write(`\r${share}`);
};

export async function renderCommand(file: string, options: RenderOptions): Promise<void> {
  const project = openProject(file);
  const shot = shotOf(project, file, options);
  const ending = extname(options.out).toLowerCase();
  if (IN_BROWSER.includes(ending))
    throw new CliError(`${ending} is written by a browser alone. Make it in Light, or take .gif or .zip here.`);
  const moves = shot.output.makes !== 'picture';
  const kinds = shot.output.makes === 'sprites' ? { '.png': 'sprites' } : moves ? SERIES : PICTURES;
  const exporter = (kinds as Readonly<Record<string, string>>)[ending];
  if (!exporter) throw new CliError(`${options.out}: give a file that ends in ${Object.keys(kinds).join(', ')}.`);
  const started = performance.now();
  const threads = new RenderThreads(file);
  try {
    const what = moves
      ? await series(project, shot, options.out, exporter, threads)
      : await picture(project, shot, options, exporter, threads);
    const { samples } = shot.output,
      seconds = ((performance.now() - started) / 1000).toFixed(1);
    console.log(`${options.out}: "${shot.name}", ${what}, ${samples} samples, ${seconds} s`);
  } finally {
    await threads.close();
  }
}

async function picture(
  project: Project,
  shot: Shot,
  options: RenderOptions,
  exporter: string,
  threads: RenderThreads,
): Promise<string> {
  const { size, denoise, transparent, cut, file } = shot.output;
  const film = makeFilm(...size);
  await threads.tiles(shot, size, (tile) => addTraced(film, tile));
  const camera = traceCamera(shot.camera, ...size, project.metresPerUnit);
  // Large pictures band by band: what is worked out for one would be too much of all.
  const bands = bandsOf(...size, Math.ceil((size[0] * size[1]) / BAND_PIXELS));
  const light = denoise
    ? joined(bands.map((band) => finish(denoiseSteps(filmAbout(film, band), camera, band))))
    : lightOf(film);
  const source = { name: shot.name, film: guided(light, film), grade: shot.grade, transparent };
  const known = exporterOf(exporter)!;
  const wishes =
    exporter === 'exr'
      ? { passes: options.passes ?? false }
      : exporter === 'png'
        ? { cut, deep: file === 'png16' }
        : {};
  const { files } = await known.write(source as never, known.options.parse(wishes), QUIET_JOB);
  written(options.out, files);
  return size.join('×');
}

async function series(
  project: Project,
  shot: Shot,
  out: string,
  exporter: string,
  threads: RenderThreads,
): Promise<string> {
  const problem = takeProblem(project, shot);
  if (problem) throw new CliError(`"${shot.name}": ${PROBLEMS[problem]}`);
  const plan = planOf(project, shot);
  const shots = Array.from({ length: plan.count }, (_, i) => pictureOf(plan, i));
  const pngs = await threads.frames(shots, (n) => told(`${n} of ${plan.count}`));
  const { trim, padding } = shot.output.sprites;
  const known = exporterOf(exporter)!;
  const source = seriesOf(fileName(shot.name), shot, plan, pngs);
  const wishes = exporter === 'sprites' ? { trim, padding } : {};
  written(out, (await known.write(source as never, known.options.parse(wishes), QUIET_JOB)).files);
  const seconds = plan.frames.reduce((s, f) => s + f.seconds, 0);
  return plan.cell
    ? `${plan.count} sprites of ${plan.cell.size.join('×')}`
    : `${plan.count} frames of ${shot.output.size.join('×')}, ${seconds.toFixed(1)} s long`;
}
const PROBLEMS = {
  noClip: 'it shows no clip; name one with --clip.',
  noClips: 'there are no clips in this project.',
  sceneStands: 'nothing moves in this scene; give a figure in it a clip, or take --turntable.',
};
