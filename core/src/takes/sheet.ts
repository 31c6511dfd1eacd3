/** A small picture that is to stand on a sheet. */
export interface Cell {
  readonly width: number;
  readonly height: number;
  readonly rgba: Uint8Array;
}
/** Where it stands, and how far its corner lies from that of the cell it was cut from. */
export interface CellPlace {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
  readonly left: number;
  readonly top: number;
}

export interface Sheet {
  readonly width: number;
  readonly height: number;
  /** Red, green, blue, alpha. */
  readonly rgba: Uint8Array<ArrayBuffer>;
  /** In the order of the cells. */
  readonly places: readonly CellPlace[];
}

/** Longest edge of a sheet in pixels. */
export const MOST_SHEET = 16_384;

/** The smallest rectangle of a picture outside of which all is clear; one pixel of it where nothing is there. */
export function coveredBox({ width, height, rgba }: Cell): Pick<CellPlace, 'left' | 'top' | 'width' | 'height'> {
  let [x0, y0, x1, y1] = [width, height, -1, -1];
  for (let y = 0, i = 3; y < height; y++)
    for (let x = 0; x < width; x++, i += 4)
      if (rgba[i]! > 0) {
        x0 = Math.min(x0, x);
        x1 = Math.max(x1, x);
        y0 = Math.min(y0, y);
        y1 = y;
      }
  return x1 < 0
    ? { left: 0, top: 0, width: 1, height: 1 }
    : { left: x0, top: y0, width: x1 - x0 + 1, height: y1 - y0 + 1 };
}

/** A rectangle of a picture alone. */
export function cutOut(
  cell: Cell,
  { left, top, width, height }: Pick<CellPlace, 'left' | 'top' | 'width' | 'height'>,
): Cell {
  const rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++) {
    const from = ((top + y) * cell.width + left) * 4;
    rgba.set(cell.rgba.subarray(from, from + width * 4), y * width * 4);
  }
  return { width, height, rgba };
}

/**
 * Pictures on one sheet, in rows.
 *
 * @param rows – how many stand in each row
 * @param trim – each is cut to what is in it, with `padding` clear pixels between
 * @throws RangeError when the sheet would be larger than {@link MOST_SHEET}
 */
export function sheetOf(cells: readonly Cell[], rows: readonly number[], trim: boolean, padding: number): Sheet {
  const boxes = cells.map((c) => (trim ? coveredBox(c) : { left: 0, top: 0, width: c.width, height: c.height }));
  const gap = trim ? padding : 0;
  const places: CellPlace[] = [];
  let [width, y, next] = [0, gap, 0];
  for (const count of rows) {
    let x = gap,
      tall = 0;
    for (const box of boxes.slice(next, next + count)) {
      places.push({ ...box, x, y });
      x += box.width + gap;
      tall = Math.max(tall, box.height);
    }
    next += count;
    width = Math.max(width, x);
    y += tall + gap;
  }
  if (Math.max(width, y) > MOST_SHEET) throw new RangeError(`A sheet of ${width} × ${y} pixels is too large.`);
  const rgba = new Uint8Array(width * y * 4);
  for (const [i, p] of places.entries()) {
    const part = cutOut(cells[i]!, p);
    for (let row = 0; row < p.height; row++)
      rgba.set(part.rgba.subarray(row * p.width * 4, (row + 1) * p.width * 4), ((p.y + row) * width + p.x) * 4);
  }
  return { width, height: y, rgba, places };
}
