import { type Mat4, type Vec3, invertMat, transformPoint, mapVec } from '@sphalerite/core/math';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import type { Ref } from 'vue';
import { useSession } from '../../../stores/session';
import type { Spot, Stroke3 } from '../../../viewport/overlay';
import { pickPart, toLattice } from '../../../viewport/pick';
import type { ViewPointer } from '../../../viewport/view-input';
import { useBuild } from '../build-state';
import { useFinish } from './finish-state';

/** A gradient is drawn in the view: from where the pointer goes down on cubes to where it is let go. */
export function gradientControl(matrix: Ref<Mat4>, seen: () => VoxelGrid | null) {
  const session = useSession();
  const build = useBuild();
  const finish = useFinish();
  let from: Vec3 | null = null;
  const active = (): boolean => finish.active && finish.kind === 'gradient';

  /** Where the surface under the pointer stands in the world; null beside all cubes. */
  function surface(p: ViewPointer): Vec3 | null {
    const grid = seen(),
      part = session.part;
    if (!grid || !part) return null;
    const pick = pickPart(grid, part, toLattice(p.ray, matrix.value), build.guide);
    return (
      pick &&
      transformPoint(
        matrix.value,
        mapVec(pick.cell, (c, i) => c + 0.5 + pick.normal[i]! / 2),
      )
    );
  }
  const inLattice = (p: Vec3): Vec3 => transformPoint(invertMat(matrix.value), p);
  return {
    active,
    /** Whether the view shows a finish that is being tried out, which stays when the pointer leaves. */
    tries: () => finish.active && finish.shown,
    down(p: ViewPointer): boolean {
      if (!active()) return false;
      from = surface(p);
      return from !== null;
    },
    move(p: ViewPointer): boolean {
      if (!active()) return false;
      const to = from && surface(p);
      if (from && to && to.some((v, i) => v !== from![i])) {
        finish.shown = true;
        finish.ends = { from, to };
      }
      return true;
    },
    up(p: ViewPointer): boolean {
      if (!from) return false;
      this.move(p);
      from = null;
      return true;
    },
    spots(): Spot[] {
      return active() && finish.line
        ? [finish.line.from, finish.line.to].map((at) => ({ at: inLattice(at), tone: 'honey', hot: false }))
        : [];
    },
    strokes(): Stroke3[] {
      return active() && finish.line
        ? [{ from: inLattice(finish.line.from), to: inLattice(finish.line.to), tone: 'honey' }]
        : [];
    },
  };
}
export type GradientControl = ReturnType<typeof gradientControl>;
