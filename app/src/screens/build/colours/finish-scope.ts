import { type Extent, type Vec3, boxVolume, placedExtent, transformPoint } from '@sphalerite/core/math';
import { gatherRig, listExtent } from '@sphalerite/core/scene';
import { heightsOf } from '@sphalerite/core/project';
import { computed, ref, shallowRef, watch } from 'vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { usePartMatrix } from '../picking';
import { useSelection } from '../selection/selection-state';

export const SCOPES = ['selection', 'part', 'project'] as const;
export type Scope = (typeof SCOPES)[number];

/** What a finish is painted on, and where that lies. */
export function useFinishScope() {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const matrix = usePartMatrix();
  const scope = ref<Scope>('part');
  /** The ends of a gradient in project units; from the lowest to the highest cube until they are drawn. */
  const ends = shallowRef<{ readonly from: Vec3; readonly to: Vec3 } | null>(null);
  watch(
    () => session.hand.part,
    () => (ends.value = null),
  );
  watch(
    () => selection.selected,
    (s) => {
      if (s) scope.value = 'selection';
      else if (scope.value === 'selection') scope.value = 'part';
    },
  );
  const targets = computed(() => {
    const { project, part, layer } = session;
    if (!project || !part || !layer) return [];
    if (scope.value !== 'project') return [{ part: part.id, layer: layer.id, limit: build.limit }];
    return project.parts
      .filter((o) => !o.hidden && o.palette === part.palette)
      .flatMap((o) => o.layers.filter((l) => !l.hidden && !l.locked).map((l) => ({ part: o.id, layer: l.id })));
  });
  const parts = computed(() => [...new Set(targets.value.map((t) => t.part))]);
  /** Cells that would be looked at. */
  const cells = computed(() =>
    parts.value.reduce((n, id) => n + boxVolume(session.project!.parts.find((p) => p.id === id)!.bounds), 0),
  );
  const within = computed(() => (scope.value === 'selection' ? selection.selected : null));
  const heights = computed(() => {
    const ids = targets.value.map((t) => t.part);
    return session.project ? heightsOf(session.project, ids, within.value) : null;
  });
  /** Where a gradient goes: as it was drawn, else from bottom to top. */
  const line = computed(() => {
    if (ends.value) return ends.value;
    const h = heights.value,
      part = session.part;
    if (!h || !part) return null;
    const b = build.seen?.contentBox() ?? part.bounds;
    const [x, , z] = transformPoint(matrix.value, [b.min[0] + b.size[0] / 2, 0, b.min[2] + b.size[2] / 2]);
    return { from: [x, h.low, z] as Vec3, to: [x, h.high, z] as Vec3 };
  });
  /** The box of what is painted. */
  const extent = computed((): Extent | null => {
    const set = within.value;
    if (set?.tight) return placedExtent(matrix.value, set.tight);
    if (!session.project) return null;
    const mine = new Set(parts.value);
    return listExtent(gatherRig(session.project).filter((i) => mine.has(i.source.part!)));
  });
  return { scope, ends, targets, cells, within, heights, extent, line };
}
