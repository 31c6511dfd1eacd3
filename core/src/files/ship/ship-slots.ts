import type { FaceSlots, Part } from '../../model';
import { type FaceLabels, NO_LABEL } from '../../mesh';
import type { Palette } from '../../palette';
import { BYTE_VALUES } from '../../voxel';
import { FileError } from '../file-error';
import type { ShipProfile } from './ship-profile';

/** Which slot a label is of. */
export const slotOfLabel = (label: number): number => label >> 8;
/** Which colour a label is of, where colours are kept apart; 0 where they are not. */
export const byteOfLabel = (label: number): number => label & 255;

/**
 * Material slots of a model, by number; 0 is for faces that none was named for. Faces that were picked come first, then what the swatch
 * says, then which way the face looks.
 */
export class ShipSlots {
  readonly names: string[] = [''];
  private readonly known = new Map([['', 0]]);
  private readonly byDirection: readonly number[];

  constructor(private readonly mesh: ShipProfile['mesh']) {
    const { floors, walls, ceilings } = mesh;
    this.byDirection = [walls, walls, floors, ceilings, walls, walls].map((name) => this.numberOf(name));
  }

  private numberOf(name: string): number {
    let n = this.known.get(name);
    if (n === undefined) {
      n = this.names.push(name) - 1;
      if (n > 254) throw new FileError('ship.tooManySlots');
      this.known.set(name, n);
    }
    return n;
  }

  /** What tells the faces of a part apart. @param takes – 1 for each byte whose faces are wanted */
  labels(palette: Palette, { faceSlots }: Part, takes: Uint8Array): FaceLabels {
    const bySwatch = new Uint8Array(BYTE_VALUES);
    for (const s of palette.swatches) bySwatch[s.byte] = this.numberOf(s.slot);
    const byColour = this.mesh.merge === 'colour';
    const labelOf = (slot: number, byte: number): number => slot * 256 + (byColour ? byte : 0);
    const tables = this.byDirection.map((looks) =>
      Uint16Array.from({ length: BYTE_VALUES }, (_, byte) =>
        takes[byte] === 1 ? labelOf(bySwatch[byte]! || looks, byte) : NO_LABEL,
      ),
    );
    return faceSlots ? { tables, ...this.picked(faceSlots, labelOf, takes) } : { tables };
  }

  private picked(
    { list, faces }: FaceSlots,
    labelOf: (slot: number, byte: number) => number,
    takes: Uint8Array,
  ): Pick<FaceLabels, 'picked' | 'labelOfPicked'> {
    const numbers = new Map(list.map((s) => [s.byte, this.numberOf(s.name)]));
    return {
      picked: this.byDirection.map((_, d) => faces.find((f) => f.direction === d)?.grid ?? null),
      labelOfPicked: (number, byte) => (takes[byte] === 1 ? labelOf(numbers.get(number) ?? 0, byte) : NO_LABEL),
    };
  }
}
