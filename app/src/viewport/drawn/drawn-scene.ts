import type { Vec3 } from '@sphalerite/core/math';
import { type Palette, paletteTable } from '@sphalerite/core/palette';
import type { DrawInstance, DrawList, Geometry } from '@sphalerite/core/scene';
import { byteTable } from '@sphalerite/core/voxel';
import { Group } from 'three';
import { Batch, type Slot } from './batch';
import type { SeenInstance } from './detail';
import type { ViewUniforms } from './cube-material';
import { Following } from './following';
import { type MeshInBackground, OnTheSpot } from './grid-skin';
import { Look } from './look';
import { Shape } from './shape';
import { type DrawStyle, type FullStyle, styleKey } from './style';

/** A draw list as it stands in the view, beside others. */
export interface DrawnList {
  readonly list: DrawList;
  /** How each is drawn; null leaves it out. */
  readonly styleOf: (i: DrawInstance) => DrawStyle | null;
  /** By how much it stands aside. */
  readonly shift: Vec3;
  /** Lines where colours meet, on what is drawn plainly. */
  readonly lined: boolean;
  /** Whether it is a moment before or after what is worked on. */
  readonly moment: boolean;
}

interface Drawn extends Slot {
  style: string;
  turn: number;
}
/** What is to come in. */
interface Fresh {
  readonly instance: DrawInstance;
  readonly full: FullStyle;
  readonly key: string;
}
interface Layer {
  readonly group: Group;
  readonly slots: Map<DrawInstance, Drawn>;
  readonly batches: Map<string, Batch>;
}

const nameOf = ({ geometry, source, level = 0 }: SeenInstance): string =>
  geometry.kind === 'cube' ? `cube ${geometry.cube.id}` : `part ${source.part} ${level}`;

/**
 * Draw lists as things of three: each geometry meshed once, each palette one look, everything that is alike drawn together.
 * Given the next lists, it changes what differs, by the identity of instances.
 */
export class DrawnScene {
  readonly group = new Group();
  private readonly layers: Layer[] = [];
  private readonly geometries = new Map<Shape, Geometry>();
  private readonly palettes = new Map<Look, Palette>();
  private readonly shapes: Following<Geometry, Shape>;
  private readonly looks: Following<Palette, Look>;
  /** Batches that something has gone from. */
  private readonly left = new Set<Batch>();
  /** Whether moments before and after are drawn; what is plain is drawn over them once more. */
  private haunted = false;
  private turn = 0;

  /** @param arrived – told when meshes from a worker are in */
  constructor(background: MeshInBackground, arrived: () => void, uniforms: ViewUniforms) {
    const shows = (shape: Shape, geometry: Geometry): Shape => (this.geometries.set(shape, geometry), shape);
    this.shapes = new Following<Geometry, Shape>(
      (g) => shows(new Shape(background, arrived), g),
      shows,
      (shape) => {
        this.geometries.delete(shape);
        shape.dispose();
      },
    );
    this.looks = new Following<Palette, Look>(
      (p) => {
        const look = new Look(p, uniforms);
        this.palettes.set(look, p);
        return look;
      },
      (look, p) => {
        this.palettes.set(look, p);
        look.setPalette(p);
      },
      (look) => {
        this.palettes.delete(look);
        look.dispose();
      },
    );
    this.group.matrixAutoUpdate = false;
  }

  set(lists: readonly DrawnList[]): void {
    this.turn++;
    this.haunted = lists.some((l) => l.moment);
    while (this.layers.length < lists.length) this.layers.push(this.newLayer());
    const fresh = this.layers.map((layer, i) => this.sort(layer, lists[i] ?? null));
    this.keep(fresh.flat().map((f) => f.instance));
    const touched = new Set<Batch>();
    fresh.forEach((list, i) => {
      for (const f of list) touched.add(this.add(this.layers[i]!, f));
    });
    this.showShapes();
    for (const layer of this.layers)
      for (const [key, batch] of layer.batches) {
        if (batch.count === 0) {
          batch.dispose();
          layer.batches.delete(key);
        } else if (touched.has(batch) || this.left.has(batch)) batch.settle();
      }
    this.left.clear();
    this.layers.splice(lists.length).forEach((l) => l.group.removeFromParent());
  }

  /** Quads that a geometry is drawn with, each time; null when it is not drawn, or not yet. */
  quadsOf(geometry: Geometry): number | null {
    return this.shapes.has(geometry) ? this.shapes.get(geometry).quads : null;
  }
  /** Quads of all that is drawn. */
  get quads(): number {
    let n = 0;
    for (const { batches } of this.layers) for (const b of batches.values()) n += b.count * (b.shape.quads ?? 0);
    return n;
  }

  /** Leaves out faces that look away; without an eye all are drawn. */
  cull(eye: Vec3 | null, ahead: Vec3, orthographic: boolean): void {
    for (const { group, batches } of this.layers) {
      const [x, y, z] = [12, 13, 14].map((i) => group.matrix.elements[i]!) as [number, number, number];
      const from: Vec3 | null = eye && [eye[0] - x, eye[1] - y, eye[2] - z];
      for (const b of batches.values()) b.cull(from, ahead, orthographic);
    }
  }

  dispose(): void {
    this.set([]);
    this.shapes.clear();
    this.looks.clear();
  }

  private newLayer(): Layer {
    const group = new Group();
    group.matrixAutoUpdate = false;
    this.group.add(group);
    return { group, slots: new Map(), batches: new Map() };
  }

  /** Lets go of what has gone or is drawn otherwise, and gives what is to come in. */
  private sort(layer: Layer, drawn: DrawnList | null): Fresh[] {
    const fresh: Fresh[] = [];
    if (drawn) {
      const [x, y, z] = drawn.shift;
      layer.group.matrix.makeTranslation(x, y, z);
      layer.group.matrixWorldNeedsUpdate = true;
    }
    const styles = new Map<FullStyle['style'], { full: FullStyle; key: string }>();
    for (const instance of drawn?.list ?? []) {
      const seen = drawn!.styleOf(instance);
      if (seen === null) continue;
      const style: FullStyle['style'] = drawn!.moment ? 'moment' : seen;
      let known = styles.get(style);
      if (!known) {
        const plain = style === 'plain';
        const full = { style, lined: plain && drawn!.lined, twice: plain && this.haunted };
        styles.set(style, (known = { full, key: styleKey(full) }));
      }
      const slot = layer.slots.get(instance);
      if (slot?.style === known.key) slot.turn = this.turn;
      else fresh.push({ instance, ...known });
    }
    for (const [instance, slot] of layer.slots) {
      if (slot.turn === this.turn) continue;
      layer.slots.delete(instance);
      slot.batch.remove(slot);
      this.left.add(slot.batch);
    }
    return fresh;
  }

  private keep(fresh: readonly DrawInstance[]): void {
    const shapes = new Set<Shape>(),
      looks = new Set<Look>();
    for (const { batches } of this.layers)
      for (const b of batches.values())
        if (b.count > 0) {
          shapes.add(b.shape);
          looks.add(b.look);
        }
    this.shapes.keep(new Map(fresh.map((i) => [i.geometry, nameOf(i)])), shapes);
    this.looks.keep(new Map(fresh.map((i) => [i.palette, i.palette.id])), looks);
  }

  private add(layer: Layer, f: Fresh): Batch {
    const shape = this.shapes.get(f.instance.geometry),
      look = this.looks.get(f.instance.palette);
    const key = `${shape.id} ${look.id} ${f.key}`;
    let batch = layer.batches.get(key);
    if (!batch) {
      batch = new Batch(shape, look, f.full);
      layer.batches.set(key, batch);
      layer.group.add(batch.group);
    }
    layer.slots.set(f.instance, Object.assign(batch.add(f.instance.matrix), { style: f.key, turn: this.turn }));
    return batch;
  }

  /** Shapes show what they stand for; each byte that is see-through in one of its palettes is so for all. */
  private showShapes(): void {
    const seenIn = new Map<Shape, Set<Look>>();
    for (const { batches } of this.layers)
      for (const b of batches.values())
        if (b.count > 0) {
          const looks = seenIn.get(b.shape);
          if (looks) looks.add(b.look);
          else seenIn.set(b.shape, new Set([b.look]));
        }
    const spot = new OnTheSpot();
    for (const [shape, looks] of seenIn)
      shape.show(this.geometries.get(shape)!, transparentIn([...looks].map((l) => this.palettes.get(l)!)), spot);
  }
}

/** 1 for each byte that is see-through in one of the palettes. */
function transparentIn(palettes: readonly Palette[]): Uint8Array {
  if (palettes.length === 1) return paletteTable(palettes[0]!).transparent;
  const out = byteTable();
  for (const p of palettes) paletteTable(p).transparent.forEach((v, i) => (out[i]! |= v));
  return out;
}
