import type { Quat, Vec3 } from '@sphalerite/core/math';
import { type Id, type Placement, type Project, placementsOf } from '@sphalerite/core/model';
import {
  addLampEdit,
  addSceneLayerEdit,
  changeSceneLayerEdit,
  embedProjectEdit,
  placeEdit,
  repeatEdit,
  type RepeatWishes,
} from '@sphalerite/core/project';
import { type Maker, turn } from './maker';

/** A hand that puts things into the scene, on the layer that was begun last. */
export class SceneHand {
  readonly id: Id;
  private on: Id;
  constructor(private readonly m: Maker) {
    this.id = m.project.scenes[0]!.id;
    this.on = m.project.scenes[0]!.layers[0]!.id;
  }
  private get last(): Id {
    return placementsOf(this.m.project.scenes[0]!).at(-1)!.id;
  }
  layer(name: string, colour: string, first = false): void {
    if (!first) this.m.apply(addSceneLayerEdit, { scene: this.id, name });
    const { id } = this.m.project.scenes[0]!.layers.at(-1)!;
    this.m.apply(changeSceneLayerEdit, { scene: this.id, layer: id, change: { name, colour } });
    this.on = id;
  }
  put(part: Id, t: Vec3, o: { turn?: number; look?: string | null; on?: Id; scale?: number } = {}): Id {
    return this.place({ kind: 'part', part }, t, o);
  }
  private place(
    shows: Placement['shows'],
    t: Vec3,
    { turn: degrees = 0, look = null, on, scale = 1 }: Parameters<SceneHand['put']>[2] & object,
  ): Id {
    const colourway = look === null ? null : this.m.project.colourways.find((c) => c.name === look)!.id;
    const q: Quat = turn(0, degrees);
    this.m.apply(placeEdit, {
      scene: this.id,
      placements: [{ shows, t, q, s: [scale, scale, scale], colourway, layer: this.on, parent: on ?? null }],
    });
    return this.last;
  }
  repeat(placement: Id, wishes: RepeatWishes): void {
    this.m.apply(repeatEdit, { scene: this.id, placement, wishes });
  }
  lamp(parent: Id, t: Vec3, strength: number): void {
    this.m.apply(addLampEdit, {
      scene: this.id,
      lamp: { parent, t, strength, layer: this.on, colour: '#ffc37a', name: 'Lantern' },
    });
  }
  /** Another project at a moment of one of its clips. */
  figure(project: Project, clip: string, seconds: number, t: Vec3, degrees: number): void {
    this.m.apply(embedProjectEdit, { project, revision: '' });
    const asset = this.m.project.assets.at(-1)!;
    const played = asset.project.clips.find((c) => c.name === clip)!;
    this.place({ kind: 'asset', asset: asset.id, clip: played.id, time: Math.round(seconds * 1200) }, t, {
      turn: degrees,
    });
  }
}
