import { type Id, type Project, must } from '../model';
import type { Pose } from '../rig';
import type { DrawList } from './draw-list';
import { gatherRig } from './rig-list';
import { type CopyPlace, SceneTree } from './scene-tree';

/** What of a project is looked at: its rig at a pose, or a scene. */
export type DrawView =
  | { readonly of: 'rig'; readonly pose?: Pose; readonly alternates?: 'worn' | 'all' }
  | { readonly of: 'scene'; readonly scene: Id };

/** What stands where: {@link Gatherer} without a memory. */
export const gather = (project: Project, view: DrawView, colourway: Id | null = null): DrawList =>
  new Gatherer().gather(project, view, colourway);

/**
 * The one place that says what stands where: the rig at a pose, or a scene with its placements, repeats, rigs, terrain cubes
 * and other projects, in a colourway. Everything that draws, traces, pictures, checks, picks and ships starts from its list.
 * Asked again for the next project, it makes anew only what changed, and gives the same list where nothing did.
 */
export class Gatherer {
  private scene: { readonly id: Id; readonly tree: SceneTree } | null = null;

  gather(project: Project, view: DrawView, colourway: Id | null = null): DrawList {
    if (view.of === 'rig') return gatherRig(project, view, colourway);
    if (this.scene?.id !== view.scene) this.scene = { id: view.scene, tree: new SceneTree() };
    return this.scene!.tree.list(project, must(project.scenes, view.scene, 'scene'), colourway);
  }

  /** Where the copies of a repeat stand in the scene that was last gathered. */
  copiesOf = (repeat: Id): readonly CopyPlace[] => this.scene?.tree.placesOf(repeat) ?? [];
}
