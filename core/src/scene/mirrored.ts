import { type Axis, type Mat4, MAT4_IDENTITY, invertMat, mulMat, translation, withAxis } from '../math';
import { mirrorImage } from '../voxel';
import { type DrawInstance, gridGeometry } from './draw-list';

/** Turns an axis round. */
const flip = (axis: Axis): Mat4 => MAT4_IDENTITY.map((v, i) => (i === axis * 5 ? -v : v)) as unknown as Mat4;

/** Takes points of the world to their images across a plane of a space. */
export const reflection = (space: Mat4, axis: Axis, at: number): Mat4 =>
  mulMat(mulMat(space, mulMat(translation(withAxis([0, 0, 0], axis, 2 * at)), flip(axis))), invertMat(space));

/**
 * The image of something drawn across a plane of a space. Its cubes are mirrored in their lattice, so that its matrix still turns and
 * never mirrors; a terrain cube keeps its faces.
 *
 * @param space – from that space to the world
 * @param at – where the plane crosses the axis, in project units
 */
export function mirroredInstance(i: DrawInstance, space: Mat4, axis: Axis, at: number): DrawInstance {
  const image = mulMat(reflection(space, axis, at), i.matrix);
  const { geometry } = i;
  const source = { ...i.source, copy: 1 };
  if (geometry.kind === 'grid')
    return {
      ...{ ...i, source },
      geometry: gridGeometry(mirrorImage(geometry.grid, axis)),
      matrix: mulMat(image, flip(axis)),
    };
  // Its lattice goes from 0 to so many texels.
  const back = mulMat(translation(withAxis([0, 0, 0], axis, geometry.set.texels)), flip(axis));
  return { ...i, source, matrix: mulMat(image, back) };
}
