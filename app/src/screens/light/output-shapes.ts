type Size = readonly [number, number];

/** Shapes of pictures by width and height. */
const RATIOS: readonly Size[] = [
  [16, 9],
  [4, 3],
  [3, 2],
  [1, 1],
  [4, 5],
  [9, 16],
];
export const SHAPES = RATIOS.map(([w, h]) => ({
  value: `${w}:${h}`,
  text: `${w}:${h}`,
  is: (size: Size): boolean => Math.abs(size[0] / size[1] - w / h) < 0.005,
}));

/** About as many pixels in another shape; both sides even, as videos want them. */
export function shaped(shape: string, [width, height]: Size): [number, number] {
  const [w, h] = shape.split(':').map(Number) as [number, number];
  const k = Math.sqrt((width * height) / (w * h));
  return [Math.max(2, Math.round((w * k) / 2) * 2), Math.max(2, Math.round((h * k) / 2) * 2)];
}
