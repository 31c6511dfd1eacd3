import { type Steps, decompose, finish } from '../../math';
import { type Project, must, withoutHelpers } from '../../model';
import { hiddenFacesSteps } from './hidden-faces';
import { joined } from './join-meshes';
import { ModelMaker } from './model-maker';
import { addPart, addRig } from './rig-model';
import { addScene } from './scene-model';
import { colliderShapes, namedColliders } from './ship-colliders';
import { solidSteps } from './solid';
import type { ShipModel, Shipped } from './ship-model';
import { PLAIN_PROFILE, type ShipProfile } from './ship-profile';

/**
 * What is shipped of a project, for every exporter of models: nodes, meshes made once however often they stand, materials,
 * clips. Of a rig a node for each bone, a node with a mesh for each mounted part below its bone; of a scene a node for each
 * placement. Vertices are relative to the part's pivot.
 *
 * @throws FileError when there is nothing to ship
 */
export const gatherShipped = (project: Project, what: Shipped, profile: ShipProfile = PLAIN_PROFILE): ShipModel =>
  finish(gatherShippedSteps(project, what, profile));

/** {@link gatherShipped} in pieces. */
export function* gatherShippedSteps(
  whole: Project,
  what: Shipped,
  profile: ShipProfile = PLAIN_PROFILE,
): Steps<ShipModel> {
  const project = withoutHelpers(whole);
  const maker = new ModelMaker(project, profile);
  if (maker.profile.mesh.dropHidden && what.of === 'rig') maker.hidden = yield* hiddenFacesSteps(project);
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
  const { shape, of } = maker.profile.collider;
  if (of === 'whole' && shape !== 'none') yield* collideWhole(maker, project, what);
  return joined(yield* maker.finished(), maker.profile);
}

/** What things bump into for all of it as it stands at rest, united wherever cubes meet cubes. */
function* collideWhole(maker: ModelMaker, project: Project, what: Shipped): Steps<void> {
  for (const { name, grid, matrix } of (yield* solidSteps(project, what)).bodies) {
    const { t, q, s } = decompose(matrix);
    const title = maker.named(name, 'centre');
    const node = maker.node(title, maker.top, { t, q, s: [1, 1, 1] });
    const shapes = yield* colliderShapes(grid, [0, 0, 0], s[0] * maker.unit, maker.profile.collider);
    maker.colliders.push(...namedColliders(shapes, node, title, maker.profile));
  }
}
