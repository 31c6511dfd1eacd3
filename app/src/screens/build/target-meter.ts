import { type Project, composite } from '@sphalerite/core/model';
import { REST_POSE, placeParts } from '@sphalerite/core/rig';
import { transformPoint } from '@sphalerite/core/math';
import type { GlbCounts } from '@sphalerite/core/files';
import { onScopeDispose, shallowRef, watch } from 'vue';
import { useSession } from '../../stores/session';
import { sharedPool } from '../../workers/pool';

/** What the project would ship as, counted in a worker a little after the hand rests. */
export function useShipCounts() {
  const session = useSession();
  const counts = shallowRef<GlbCounts | null>(null);
  let timer: ReturnType<typeof setTimeout> | undefined;
  const stop = watch(() => session.project, (p) => {
    clearTimeout(timer);
    if (!p) return;
    timer = setTimeout(() => {
      void sharedPool().run('counts', (sent) => ({ project: sent.packProject(p) })).then((c) => {
        if (session.project === p) counts.value = c;
      }, () => undefined);
    }, 700);
  }, { immediate: true });
  onScopeDispose(() => {
    stop();
    clearTimeout(timer);
  }, true);
  return counts;
}

const heights = new WeakMap<Project, number>();
/** Height of everything that is mounted or loose, in project units. */
function heightOf(p: Project): number {
  let h = heights.get(p);
  if (h === undefined) {
    let lo = Infinity, hi = -Infinity;
    for (const { part, matrix } of placeParts(p, REST_POSE)) {
      const b = composite(part).contentBox();
      if (!b) continue;
      for (let k = 0; k < 8; k++) {
        const y = transformPoint(matrix, [b.min[0] + (k & 1 ? b.size[0] : 0), b.min[1] + (k & 2 ? b.size[1] : 0), b.min[2] + (k & 4 ? b.size[2] : 0)])[1];
        lo = Math.min(lo, y);
        hi = Math.max(hi, y);
      }
    }
    h = hi > lo ? hi - lo : 0;
    heights.set(p, h);
  }
  return h;
}

/** The live meter: what is, against the target sheet where that says something. */
export function targetText(p: Project, counts: GlbCounts | null, cell: number): string {
  const { target } = p;
  const part = (label: string, now: string, most: number, unit = ''): string[] => (most > 0 ? [`${label} ${now} / ${most.toLocaleString('en')}${unit}`] : []);
  return [
    `height ${(heightOf(p) * p.metresPerUnit).toFixed(2)}${target.height > 0 ? ` / ${target.height.toFixed(2)}` : ''} m`,
    ...part('tris', (counts?.triangles ?? 0).toLocaleString('en'), target.faces),
    ...part('bones', String(p.rig.bones.length), target.bones),
    `1 cube = ${(p.metresPerUnit * cell * 100).toFixed(1)} cm`,
  ].join(' · ');
}
