import { type Project, composite, find, placementsOf, sideSuffix, withoutHelpers, TICKS } from '../model';
import { countKeys } from '../motion';

/** What a project holds, by name: for the command line, lists and scripts. */
export interface ProjectSummary {
  readonly name: string;
  readonly kind: string;
  readonly metresPerUnit: number;
  readonly cubes: number;
  readonly parts: readonly {
    name: string;
    side: string;
    size: readonly number[];
    cubes: number;
    layers: number;
    bone: string | null;
  }[];
  readonly bones: readonly { name: string; side: string; parent: string | null }[];
  readonly clips: readonly { name: string; seconds: number; fps: number; loop: boolean; keys: number }[];
  readonly shots: readonly { name: string; size: readonly number[]; samples: number }[];
  readonly scenes: readonly {
    name: string;
    placements: number;
    repeats: number;
    lamps: number;
    layers: readonly string[];
  }[];
  readonly swatches: number;
}

export function summarize(whole: Project): ProjectSummary {
  const project = withoutHelpers(whole);
  const boneName = (id: string | null): string | null => {
    const b = find(project.rig.bones, id);
    return b ? b.name + sideSuffix(b.side) : null;
  };
  const parts = project.parts.map((p) => ({
    name: p.name,
    side: p.side,
    size: p.bounds.size,
    cubes: composite(p).count,
    layers: p.layers.length,
    bone: boneName(project.rig.mounts.find((m) => m.part === p.id)?.bone ?? null),
  }));
  return {
    name: project.name,
    kind: project.kind,
    metresPerUnit: project.metresPerUnit,
    cubes: parts.reduce((n, p) => n + p.cubes, 0),
    parts,
    bones: project.rig.bones.map((b) => ({ name: b.name, side: b.side, parent: boneName(b.parent) })),
    clips: project.clips.map((c) => ({
      name: c.name,
      seconds: c.length / TICKS,
      fps: c.fps,
      loop: c.loop,
      keys: countKeys(c),
    })),
    shots: project.shots.map((s) => ({ name: s.name, size: s.output.size, samples: s.output.samples })),
    scenes: project.scenes.map((s) => ({
      name: s.name,
      placements: placementsOf(s).length,
      repeats: s.repeats.length,
      lamps: s.lamps.length,
      layers: s.layers.map((l) => l.name),
    })),
    swatches: project.palettes.reduce((n, p) => n + p.swatches.length, 0),
  };
}
