import type { Vec3 } from '../../math';
import { Scanner } from './scanner';

/** A material as its text says it: colours in sRGB, pictures by their paths. */
export interface MtlSurface {
  readonly name: string;
  readonly colour: Vec3;
  readonly opacity: number;
  readonly glow: Vec3;
  readonly roughness: number;
  readonly metalness: number;
  readonly picture: string | null;
  readonly glowPicture: string | null;
  /** Whether a picture says what is cut out. */
  readonly pictured: boolean;
}

const share = (v: number): number => (v >= 0 ? Math.min(1, v) : 0);

/** Materials of a library (Wavefront MTL with the usual additions for roughness and metalness). What is not known is passed over. */
export function mtlSurfaces(bytes: Uint8Array): MtlSurface[] {
  const all: MtlSurface[] = [];
  let m: { -readonly [K in keyof MtlSurface]: MtlSurface[K] } | null = null;
  const scan = new Scanner(bytes);
  while (scan.line()) {
    const word = scan.word();
    if (word === 'newmtl') {
      m = {
        ...{ name: scan.rest(), colour: [0.6, 0.6, 0.6], opacity: 1, glow: [0, 0, 0], roughness: 0.8, metalness: 0 },
        ...{ picture: null, glowPicture: null, pictured: false },
      };
      all.push(m);
    }
    if (!m) continue;
    const colour = (): Vec3 => {
      const r = scan.number(),
        g = scan.number(),
        b = scan.number();
      return g === g ? [share(r), share(g), share(b)] : [share(r), share(r), share(r)];
    };
    switch (word) {
      case 'Kd':
        m.colour = colour();
        break;
      case 'Ke':
        m.glow = colour();
        break;
      case 'd':
        m.opacity = share(scan.number());
        break;
      case 'Tr':
        m.opacity = 1 - share(scan.number());
        break;
      case 'Pr':
        m.roughness = share(scan.number());
        break;
      case 'Pm':
        m.metalness = share(scan.number());
        break;
      case 'map_Kd':
        m.picture = pathOf(scan.rest());
        break;
      case 'map_Ke':
        m.glowPicture = pathOf(scan.rest());
        break;
      case 'map_d':
        m.pictured = true;
    }
  }
  return all;
}

/** Numbers that stand behind each option of a picture. */
const OPTIONS: Readonly<Record<string, number>> = {
  ...{ '-blendu': 1, '-blendv': 1, '-boost': 1, '-bm': 1, '-cc': 1, '-clamp': 1, '-imfchan': 1, '-texres': 1 },
  ...{ '-mm': 2, '-o': 3, '-s': 3, '-t': 3, '-type': 1 },
};
/** The path behind the options. */
function pathOf(text: string): string | null {
  const words = text.split(/\s+/);
  let at = 0;
  while (at < words.length - 1 && OPTIONS[words[at]!] !== undefined) {
    const most = OPTIONS[words[at]!]!;
    at++;
    for (let k = 0; k < most && at < words.length - 1; k++) {
      // Shifts and scales may be shorter than three.
      if (k > 0 && !/^[-+.\d]+$/.test(words[at]!)) break;
      at++;
    }
  }
  return words.slice(at).join(' ') || null;
}
