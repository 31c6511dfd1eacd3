import { Color, Group, PointLight, SpotLight } from 'three';
import type { ViewLamp } from '../viewport';

/** Lamps that light the drawn view at once: each is reckoned for every pixel. */
const MOST = 6;

/** The brightest lamps of a scene as lights of the drawn view; how many there are is another shader, so few kinds of it are made. */
export class DrawnLamps {
  readonly group = new Group();
  private last: readonly ViewLamp[] = [];

  set(lamps: readonly ViewLamp[]): void {
    if (lamps === this.last || (lamps.length === 0 && this.last.length === 0)) return;
    this.last = lamps;
    this.group.clear();
    for (const l of [...lamps].sort((a, b) => b.power - a.power).slice(0, MOST)) {
      const light =
        l.cone === null
          ? new PointLight(new Color(l.colour), l.power)
          : new SpotLight(new Color(l.colour), l.power, 0, Math.min(l.cone, Math.PI / 2 - 0.01), 0.4);
      light.position.set(...l.at);
      if (light instanceof SpotLight) {
        light.target.position.set(...l.towards);
        this.group.add(light.target);
      }
      this.group.add(light);
    }
  }
}
