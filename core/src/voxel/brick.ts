import { BYTE_VALUES } from './byte-table';
/** Edge of a brick in cells. */
export const BRICK = 16;
export const BRICK_CELLS = BRICK * BRICK * BRICK;

/**
 * A frozen block of 16³ cells, one byte each, x fastest, then y, then z. It owns its buffer, so that
 * it can be stored or sent alone. Never write to a brick that a grid holds.
 */
export type Brick = Uint8Array<ArrayBuffer>;

/** Position of a cell inside its brick, from lattice coordinates of any sign. */
export const cellIndex = (x: number, y: number, z: number): number => (x & 15) | ((y & 15) << 4) | ((z & 15) << 8);

const uniform: (Brick | undefined)[] = new Array<Brick | undefined>(BYTE_VALUES);
/** The one shared brick filled with `value` (1–255). */
export function uniformBrick(value: number): Brick {
  return (uniform[value] ??= new Uint8Array(BRICK_CELLS).fill(value));
}
export const isUniformBrick = (b: Brick): boolean => uniform[b[0]!] === b;

/** The value that fills the whole brick, or −1 when there is more than one. */
export function uniformValue(b: Brick): number {
  const v = b[0]!;
  for (let i = 1; i < BRICK_CELLS; i++) if (b[i] !== v) return -1;
  return v;
}

export function countFilled(b: Brick): number {
  let n = 0;
  for (let i = 0; i < BRICK_CELLS; i++) if (b[i] !== 0) n++;
  return n;
}

let nextId = 1;
const ids = new WeakMap<Brick, number>();
/** A number for this brick that lasts for the session, the same for the same brick. */
export function brickId(b: Brick): number {
  let id = ids.get(b);
  if (id === undefined) {
    id = nextId++;
    ids.set(b, id);
  }
  return id;
}
