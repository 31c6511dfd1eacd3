import { summarize } from '@sphalerite/core/project';
import { openProject } from './io';

export function infoCommand(file: string, options: { json?: boolean }): void {
  const s = summarize(openProject(file));
  if (options.json) {
    console.log(JSON.stringify(s, null, 2));
    return;
  }
  const side = (v: string): string => (v === 'centre' ? '' : ` ${v}`);
  console.log(
    `${s.name} (${s.kind}): ${s.cubes.toLocaleString('en')} cubes of ${(s.metresPerUnit * 100).toFixed(1)} cm, ${s.swatches} swatches`,
  );
  console.log(`parts (${s.parts.length})`);
  for (const p of s.parts)
    console.log(
      `  ${(p.name + side(p.side)).padEnd(24)} ${p.size.join('×').padEnd(12)} ${String(p.cubes).padStart(7)} cubes  on ${p.bone ?? 'nothing'}`,
    );
  console.log(`bones (${s.bones.length})`);
  for (const b of s.bones)
    console.log(`  ${(b.name + side(b.side)).padEnd(24)} ${b.parent ? `on ${b.parent}` : 'root'}`);
  console.log(`clips (${s.clips.length})`);
  for (const c of s.clips)
    console.log(
      `  ${c.name.padEnd(24)} ${c.seconds.toFixed(2)} s at ${c.fps} fps, ${c.keys} keys${c.loop ? ', loops' : ''}`,
    );
  console.log(`scenes (${s.scenes.length})`);
  for (const o of s.scenes)
    console.log(
      `  ${o.name.padEnd(24)} ${o.placements} placements, ${o.repeats} repeated, ${o.lamps} lamps, layers ${o.layers.join(', ')}`,
    );
  console.log(`shots (${s.shots.length})`);
  for (const h of s.shots) console.log(`  ${h.name.padEnd(24)} ${h.size.join('×')}, ${h.samples} samples`);
}
