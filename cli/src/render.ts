import { QUIET_JOB, exporterOf } from '@sphalerite/core/files';
import { addTraced, denoised, lightOf, makeFilm, tileAreas, traceArea, traceSceneOf } from '@sphalerite/core/render';
import { CliError, openProject, writeWhole } from './io';

export async function renderCommand(
  file: string,
  options: { shot?: string; size?: [number, number]; samples?: number; denoise?: boolean; out: string },
): Promise<void> {
  const project = openProject(file);
  const shot = options.shot === undefined ? project.shots[0] : project.shots.find((s) => s.name === options.shot);
  if (!shot) {
    const names = project.shots.map((s) => `"${s.name}"`).join(', ') || 'none';
    throw new CliError(`${file}: there is no shot "${options.shot ?? ''}". Shots in this project: ${names}.`);
  }
  const scene = traceSceneOf(project, shot, options.size ?? shot.output.size);
  const samples = options.samples ?? shot.output.samples;
  const film = makeFilm(scene.width, scene.height);
  const started = performance.now();
  const areas = tileAreas(scene.width, scene.height);
  for (const [i, area] of areas.entries()) {
    addTraced(film, traceArea(scene, area, 0, samples));
    if (process.stderr.isTTY) process.stderr.write(`\r${Math.round((100 * (i + 1)) / areas.length)} %`);
  }
  const light = options.denoise ? denoised(film, scene.camera) : lightOf(film);
  const { grade, output } = shot;
  const source = { name: shot.name, film: light, grade, transparent: output.transparent };
  const { files } = await exporterOf('png')!.write(source, {}, QUIET_JOB);
  writeWhole(options.out, files[0]!.bytes);
  console.log(
    `${options.out}: "${shot.name}", ${scene.width}×${scene.height}, ${samples} samples, ${((performance.now() - started) / 1000).toFixed(1)} s`,
  );
}
