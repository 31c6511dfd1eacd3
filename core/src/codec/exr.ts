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

/**
 * A picture of linear values as OpenEXR: one part, rows one after another, floats of 32 bits, not packed (OpenEXR file layout, 2.0).
 *
 * @param rgba – four values a pixel, from the top
 */
export function encodeExr(width: number, height: number, rgba: Float32Array): Uint8Array<ArrayBuffer> {
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
  const row = width * 4 * CHANNELS.length,
    first = head.length + height * 8;
  const out = new Uint8Array(first + height * (8 + row));
  out.set(head);
  const view = new DataView(out.buffer);
  for (let y = 0; y < height; y++) {
    let at = first + y * (8 + row);
    view.setBigUint64(head.length + y * 8, BigInt(at), true);
    view.setInt32(at, y, true);
    view.setInt32(at + 4, row, true);
    at += 8;
    for (const [, c] of CHANNELS)
      for (let x = 0; x < width; x++, at += 4) view.setFloat32(at, rgba[(y * width + x) * 4 + c]!, true);
  }
  return out;
}
