import { type Steps, finish } from '../../math';
import { type Project, must, withoutHelpers } from '../../model';
import { ModelMaker } from './model-maker';
import { addPart, addRig } from './rig-model';
import { addScene } from './scene-model';
import {
  PLAIN_MAKING,
  PLAIN_PROFILE,
  type ShipMaking,
  type ShipModel,
  type ShipProfile,
  type Shipped,
} from './ship-model';

/**
 * What is shipped of a project, for every exporter of models: nodes, meshes made once however often they stand, materials,
 * clips. Of a rig a node for each bone, a node with a mesh for each mounted part below its bone; of a scene a node for each
 * placement. Vertices are relative to the part's pivot.
 *
 * @throws FileError when there is nothing to ship
 */
export const gatherShipped = (
  project: Project,
  what: Shipped,
  profile: ShipProfile = PLAIN_PROFILE,
  making: ShipMaking = PLAIN_MAKING,
): ShipModel => finish(gatherShippedSteps(project, what, profile, making));

/** {@link gatherShipped} in pieces. */
export function* gatherShippedSteps(
  whole: Project,
  what: Shipped,
  profile: ShipProfile = PLAIN_PROFILE,
  making: ShipMaking = PLAIN_MAKING,
): Steps<ShipModel> {
  const project = withoutHelpers(whole);
  const maker = new ModelMaker(project, profile, making);
  switch (what.of) {
    case 'rig':
      yield* addRig(maker);
      break;
    case 'part':
      yield* addPart(maker, must(project.parts, what.part, 'part'));
      break;
    case 'scene':
      yield* addScene(maker, what.scene, null);
      break;
    case 'group':
      yield* addScene(maker, what.scene, what.placement);
      break;
  }
  return maker.finished();
}
