import { encode } from 'fast-png';

type Vec3 = readonly [number, number, number];
type Rgb = readonly [number, number, number];

/** The bust of Emberquay's harbour master as another program would save it: an OBJ, its materials and the picture of his face. */
export function bust(): { readonly obj: Buffer; readonly mtl: Buffer; readonly face: Buffer } {
  const lines = ['mtllib harbour master.mtl'];
  let vertices = 0;
  /** A surface over two shares, u around and v from the top down. */
  const surface = (name: string, material: string, n: number, m: number, at: (u: number, v: number) => Vec3): void => {
    lines.push(`o ${name}`, `usemtl ${material}`);
    for (let j = 0; j <= m; j++)
      for (let i = 0; i <= n; i++) {
        lines.push(
          `v ${at(i / n, j / m)
            .map((c) => c.toFixed(5))
            .join(' ')}`,
          `vt ${i / n} ${1 - j / m}`,
        );
      }
    for (let j = 0; j < m; j++)
      for (let i = 0; i < n; i++) {
        const a = vertices + j * (n + 1) + i + 1,
          c = a + n + 1;
        lines.push(`f ${a}/${a} ${a + 1}/${a + 1} ${c + 1}/${c + 1} ${c}/${c}`);
      }
    vertices += (n + 1) * (m + 1);
  };
  const round = (u: number): readonly [number, number] => [-Math.sin(2 * Math.PI * u), -Math.cos(2 * Math.PI * u)];
  const ellipsoid =
    ([x, y, z]: Vec3, [a, b, c]: Vec3) =>
    (u: number, v: number): Vec3 => {
      const [s, co] = round(u),
        ring = Math.sin(Math.PI * v);
      return [x + a * ring * s, y + b * Math.cos(Math.PI * v), z + c * ring * co];
    };
  const lathe =
    (profile: readonly (readonly [r: number, y: number])[], deep: number) =>
    (u: number, v: number): Vec3 => {
      const at = v * (profile.length - 1),
        k = Math.min(profile.length - 2, Math.floor(at)),
        [r0, y0] = profile[k]!,
        [r1, y1] = profile[k + 1]!,
        [s, c] = round(u);
      const r = r0 + (r1 - r0) * (at - k);
      return [r * s, y0 + (y1 - y0) * (at - k), r * deep * c];
    };
  surface('head', 'face', 48, 32, ellipsoid([0, 1.62, 0.02], [0.22, 0.27, 0.24]));
  surface('nose', 'skin', 16, 10, ellipsoid([0, 1.58, 0.26], [0.045, 0.07, 0.06]));
  surface('ears', 'skin', 16, 10, ellipsoid([0, 1.6, 0], [0.26, 0.07, 0.05]));
  surface(
    'shoulders',
    'coat',
    48,
    16,
    lathe(
      [
        [0.001, 1.4],
        [0.12, 1.39],
        [0.16, 1.33],
        [0.4, 1.24],
        [0.46, 1.1],
        [0.4, 0.95],
        [0.001, 0.95],
      ],
      0.62,
    ),
  );
  surface(
    'collar',
    'brass',
    32,
    8,
    lathe(
      [
        [0.15, 1.42],
        [0.2, 1.42],
        [0.22, 1.3],
        [0.15, 1.3],
        [0.15, 1.42],
      ],
      0.85,
    ),
  );
  surface(
    'cap',
    'coat',
    48,
    16,
    lathe(
      [
        [0.001, 1.98],
        [0.24, 1.97],
        [0.3, 1.9],
        [0.25, 1.82],
        [0.235, 1.74],
        [0.001, 1.74],
      ],
      1.02,
    ),
  );
  surface('peak', 'dark', 24, 8, ellipsoid([0, 1.75, 0.24], [0.19, 0.025, 0.12]));
  surface('badge', 'brass', 16, 10, ellipsoid([0, 1.82, 0.26], [0.05, 0.05, 0.03]));
  const mtl = [
    ...['newmtl face', 'Kd 1 1 1', 'map_Kd textures\\harbour face.png', 'newmtl skin', 'Kd 0.80 0.56 0.42'],
    ...['newmtl coat', 'Kd 0.13 0.22 0.29', 'newmtl dark', 'Kd 0.08 0.07 0.08', 'newmtl brass', 'Kd 0.85 0.61 0.18'],
  ];
  return { obj: Buffer.from(lines.join('\n')), mtl: Buffer.from(mtl.join('\n')), face: facePng() };
}

/** Eyes, brows and a grey beard on skin; the middle of the picture is the front. */
function facePng(): Buffer {
  const [w, h] = [128, 64],
    data = new Uint8Array(w * h * 3);
  const colour = (x: number, y: number): Rgb => {
    const [dx, side] = [Math.abs(x + 0.5 - w / 2), Math.abs(x + 0.5 - w / 2)];
    if (y > 37 && side < 26 && !(y < 41 && dx < 6)) return y % 5 === 0 ? [168, 168, 170] : [196, 195, 192];
    if (y > 30 && side >= 18 && side < 27) return [186, 185, 184];
    if (dx >= 6 && dx <= 11 && y >= 29 && y <= 31) return dx >= 7.5 && dx <= 9.5 ? [38, 30, 34] : [240, 238, 230];
    if (dx >= 5 && dx <= 12 && y >= 26 && y <= 27) return [150, 148, 148];
    if (side > 34 && y > 20) return [176, 175, 174];
    return y > 33 && dx > 8 && dx < 16 ? [214, 136, 112] : [208, 148, 112];
  };
  for (let y = 0; y < h; y++) for (let x = 0; x < w; x++) data.set(colour(x, y), (y * w + x) * 3);
  return Buffer.from(encode({ width: w, height: h, data, channels: 3, depth: 8 }));
}
