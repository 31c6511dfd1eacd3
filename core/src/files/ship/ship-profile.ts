import { type DeliveryProfile, type DeliveryValues, PLAIN_DELIVERY } from '../../model';
import { FileError } from '../file-error';

/** How what is shipped is made. */
export type ShipProfile = DeliveryValues & Pick<DeliveryProfile, 'tiles'>;
export const PLAIN_PROFILE: ShipProfile = { ...PLAIN_DELIVERY, tiles: [] };

/**
 * A profile with what follows from its own wishes: what is merged regardless of colour needs a picture of its own, and pictures that
 * repeat are of slots.
 *
 * @throws FileError for wishes that exclude each other
 */
export function workable(p: ShipProfile): ShipProfile {
  const { mesh, picture, collider, place } = p;
  if (place.up[1] === place.forward[1]) throw new FileError('ship.axes', { up: place.up, forward: place.forward });
  if (mesh.watertight && mesh.dropHidden) throw new FileError('ship.hiddenAndWatertight');
  if (collider.shape === 'exact' && collider.moves === 'moving') throw new FileError('ship.exactMoving');
  if (picture.layout === 'tiling' && mesh.merge !== 'slot') return { ...p, mesh: { ...mesh, merge: 'slot' } };
  if (picture.layout === 'strip' && mesh.merge === 'all') return { ...p, picture: { ...picture, layout: 'atlas' } };
  return p;
}
