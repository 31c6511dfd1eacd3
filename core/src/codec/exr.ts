/** Channels of a file stand in the order of their names. */
const CHANNELS = [
  ['A', 3],
  ['B', 2],
  ['G', 1],
  ['R', 0],
] as const;
const FLOAT = 2;

const text = (s: string): number[] => [...[...s].map((c) => c.charCodeAt(0)), 0];
const int = (v: number): number[] => [...new Uint8Array(Int32Array.of(v).buffer)];
const float = (v: number): number[] => [...new Uint8Array(Float32Array.of(v).buffer)];
const attribute = (name: string, type: string, value: readonly number[]): number[] => [
  ...text(name),
  ...text(type),
  ...int(value.length),
  ...value,
];

/** Bytes of a row, with what stands before it. */
const rowLength = (width: number): number => 8 + width * 4 * CHANNELS.length;

/** What an OpenEXR begins with: one part, rows one after another, floats of 32 bits, not packed (OpenEXR file layout, 2.0). */
export function exrHead(width: number, height: number): Uint8Array<ArrayBuffer> {
  const window = [0, 0, width - 1, height - 1].flatMap(int);
  const channels = CHANNELS.flatMap(([name]) => [...text(name), ...int(FLOAT), ...[0, 0, 0, 0], ...int(1), ...int(1)]);
  const head = [
    ...int(20_000_630),
    ...int(2),
    ...attribute('channels', 'chlist', [...channels, 0]),
    ...attribute('compression', 'compression', [0]),
    ...attribute('dataWindow', 'box2i', window),
    ...attribute('displayWindow', 'box2i', window),
    ...attribute('lineOrder', 'lineOrder', [0]),
    ...attribute('pixelAspectRatio', 'float', float(1)),
    ...attribute('screenWindowCenter', 'v2f', [...float(0), ...float(0)]),
    ...attribute('screenWindowWidth', 'float', float(1)),
    0,
  ];
  const first = head.length + height * 8,
    out = new Uint8Array(first),
    view = new DataView(out.buffer);
  out.set(head);
  for (let y = 0; y < height; y++) view.setBigUint64(head.length + y * 8, BigInt(first + y * rowLength(width)), true);
  return out;
}

/** Some rows of it. @param rgba – four linear values a pixel @param top – the first row */
export function exrRows(width: number, rgba: Float32Array, top: number): Uint8Array<ArrayBuffer> {
  const rows = rgba.length / 4 / width,
    out = new Uint8Array(rows * rowLength(width)),
    view = new DataView(out.buffer);
  for (let y = 0, at = 0; y < rows; y++) {
    view.setInt32(at, top + y, true);
    view.setInt32(at + 4, rowLength(width) - 8, true);
    at += 8;
    for (const [, c] of CHANNELS)
      for (let x = 0; x < width; x++, at += 4) view.setFloat32(at, rgba[(y * width + x) * 4 + c]!, true);
  }
  return out;
}

/** A picture of linear values as OpenEXR. @param rgba – four values a pixel, from the top */
export function encodeExr(width: number, height: number, rgba: Float32Array): Uint8Array<ArrayBuffer> {
  const head = exrHead(width, height),
    rows = exrRows(width, rgba, 0),
    out = new Uint8Array(head.length + rows.length);
  out.set(head);
  out.set(rows, head.length);
  return out;
}
