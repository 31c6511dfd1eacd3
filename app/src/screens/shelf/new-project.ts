import type { ReadyRig } from '../../storage/ready-rigs';
import type { Vec3 } from '@sphalerite/core/math';
import type { Kind } from '@sphalerite/core/model';

/** What a new project begins with. */
export interface NewProject {
  readonly name: string;
  readonly kind: Kind;
  /** Of its first volume, in cubes. */
  readonly size: Vec3;
  /** Name of a ready palette. */
  readonly palette: string;
  /** The ready rig to fill, in place of an empty volume. */
  readonly rig: ReadyRig | null;
}
