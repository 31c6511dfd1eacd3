import { join } from 'node:path';
import { FileError, exportGlb } from '@sphalerite/core/files';
import { CliError, fileName, openProject, writeWhole } from './io';

export async function exportCommand(file: string, options: { format: string; out: string }): Promise<void> {
  if (options.format !== 'glb') throw new CliError(`"${options.format}" is not a format this version writes; use glb.`);
  const project = openProject(file);
  try {
    const { result, notes, counts } = await exportGlb(project);
    const target = join(options.out, `${fileName(project.name)}.glb`);
    writeWhole(target, result);
    for (const n of notes) console.error(`note: ${n}`);
    console.log(
      `${target}: ${counts.parts} parts, ${counts.nodes} nodes, ${counts.clips} clips, ${counts.triangles.toLocaleString('en')} triangles, ${Math.ceil(result.length / 1024)} KB`,
    );
  } catch (e) {
    if (e instanceof FileError) throw new CliError(`${file}: ${e.message}`);
    throw e;
  }
}
