import { AXES, type Vec3 } from '@sphalerite/core/math';

/** What a number field shows of several: their number where they agree, null where they differ. */
export const common = (values: readonly number[]): number | null =>
  values.length > 0 && values.every((v) => Math.abs(v - values[0]!) < 1e-6) ? values[0]! : null;

/** {@link common} of each axis. */
export const commonOf = (list: readonly Vec3[]): (number | null)[] =>
  AXES.map((axis) => common(list.map((v) => v[axis])));
