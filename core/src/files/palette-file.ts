import { decode } from 'fast-png';
import { strFromU8 } from 'fflate';
import { type Node, findNodeAtLocation, parseTree, printParseErrorCode } from 'jsonc-parser';
import * as z from 'zod';
import { MAX_SWATCHES, type Palette, type Swatch, bytesHex, hexBytes, makeSwatch } from '../palette';
import { FileError } from './file-error';
import { encodePng } from './png';

/** A palette as it came from a file; bytes run from 1 in the file's order. */
export interface PaletteFile {
  /** Null when the file does not say. */
  readonly name: string | null;
  readonly swatches: readonly Swatch[];
}

const lineOf = (text: string, offset: number): number => text.slice(0, offset).split('\n').length;
const tooMany = (n: number): FileError => new FileError('paletteFile.tooMany', { count: n, most: MAX_SWATCHES });

/** A colour a line as `#rrggbb`, then its name; `;` begins a remark. Surfaces are not in it. */
export const paletteToHexList = (p: Palette): string =>
  `; ${p.name.replaceAll(/\s+/g, ' ')}\n${p.swatches.map((s) => `${s.colour}${s.name ? ` ${s.name.replaceAll(/\s+/g, ' ').trim()}` : ''}`).join('\n')}\n`;

/**
 * Reads a list of colours: one a line, with or without `#`, three, six or eight digits (the last two are opacity),
 * then a name if one likes. Lines that are empty or begin with `;` or `//` are remarks; a remark before the first colour names
 * the palette. @throws FileError with the line
 */
export function readHexList(text: string): PaletteFile {
  let name: string | null = null;
  const swatches: Swatch[] = [];
  text
    .replace(/^\uFEFF/, '')
    .split(/\r\n|\n|\r/)
    .forEach((raw, i) => {
      const line = raw.trim();
      const remark = /^(?:;|\/\/)\s*(.*)$/.exec(line);
      if (remark) {
        if (swatches.length === 0 && name === null && remark[1]) name = remark[1].slice(0, 120);
        return;
      }
      if (line === '') return;
      const m = /^(?:#|0x)?([0-9a-f]{8}|[0-9a-f]{6}|[0-9a-f]{3})(?:[\s,;]+(.*))?$/i.exec(line);
      if (!m) throw new FileError('paletteFile.noColour', { line: i + 1, text: line.slice(0, 40) });
      let digits = m[1]!.toLowerCase();
      if (digits.length === 3) digits = [...digits].map((d) => d + d).join('');
      const opacity = digits.length === 8 ? Math.round((Number.parseInt(digits.slice(6), 16) / 255) * 1000) / 1000 : 1;
      swatches.push(
        makeSwatch(Math.min(255, swatches.length + 1), (m[2] ?? '').trim().slice(0, 120), `#${digits.slice(0, 6)}`, {
          opacity,
        }),
      );
    });
  return checked(name, swatches);
}

function checked(name: string | null, swatches: Swatch[]): PaletteFile {
  if (swatches.length === 0) throw new FileError('paletteFile.none');
  if (swatches.length > MAX_SWATCHES) throw tooMany(swatches.length);
  return { name, swatches };
}

/** A strip of one pixel a swatch; see-through swatches are see-through. Names and surfaces are not in it. */
export function paletteToStrip(p: Palette): Uint8Array {
  const data = new Uint8Array(p.swatches.length * 4);
  p.swatches.forEach((s, i) => data.set([...hexBytes(s.colour), Math.max(1, Math.round(s.opacity * 255))], i * 4));
  return encodePng(p.swatches.length, 1, data);
}

/**
 * Reads a picture as a palette. A strip one pixel high (or wide) gives a swatch a pixel; any other picture its different
 * colours, in reading order. Wholly see-through pixels are left out. @throws FileError
 */
export function readPaletteStrip(png: Uint8Array): PaletteFile {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  if (png.length < 33 || view.getUint32(0) !== 0x89504e47) throw new FileError('paletteFile.noPng');
  // Before anything is unpacked: a picture of a palette is small.
  if (view.getUint32(16) * view.getUint32(20) > 4_194_304)
    throw new FileError('paletteFile.tooLarge', { width: view.getUint32(16), height: view.getUint32(20) });
  let image;
  try {
    image = decode(png);
  } catch {
    throw new FileError('paletteFile.damaged');
  }
  const { width, height, channels, depth, palette } = image;
  const eight = (v: number): number =>
    depth === 16 ? v >> 8 : depth < 8 && !palette ? Math.round((v * 255) / (2 ** depth - 1)) : v;
  const indexAt = (i: number): number => {
    if (depth >= 8) return image.data[i]!;
    // Several pixels share a byte, and each row begins a new one.
    const row = Math.ceil((width * depth) / 8),
      x = i % width,
      y = Math.floor(i / width);
    return (image.data[y * row + ((x * depth) >> 3)]! >> (8 - depth - ((x * depth) & 7))) & (2 ** depth - 1);
  };
  const pixel = (i: number): readonly [number, number, number, number] => {
    if (palette) {
      const c = palette[indexAt(i)] ?? [0, 0, 0];
      return [c[0]!, c[1]!, c[2]!, c[3] ?? 255];
    }
    if (channels < 3) {
      const g = eight(channels === 1 ? indexAt(i) : image.data[i * 2]!);
      return [g, g, g, channels === 2 ? eight(image.data[i * 2 + 1]!) : 255];
    }
    const o = i * channels;
    return [
      eight(image.data[o]!),
      eight(image.data[o + 1]!),
      eight(image.data[o + 2]!),
      channels === 4 ? eight(image.data[o + 3]!) : 255,
    ];
  };
  const strip = (width === 1 || height === 1) && width * height <= MAX_SWATCHES;
  const seen = new Set<number>();
  const swatches: Swatch[] = [];
  for (let i = 0; i < width * height; i++) {
    const [r, g, b, a] = pixel(i);
    if (a === 0) continue;
    const key = ((r << 24) | (g << 16) | (b << 8) | a) >>> 0;
    if (!strip && seen.has(key)) continue;
    seen.add(key);
    if (swatches.length < MAX_SWATCHES)
      swatches.push(
        makeSwatch(swatches.length + 1, '', bytesHex(r, g, b), {
          opacity: a === 255 ? 1 : Math.round((a / 255) * 1000) / 1000,
        }),
      );
  }
  if (!strip && seen.size > MAX_SWATCHES) throw tooMany(seen.size);
  return checked(null, swatches);
}

const unit = z.number('must be a number').min(0, 'must be 0 or more').max(1, 'must be 1 or less');
const swatchJson = z.strictObject({
  name: z.string('must be a text').max(120).default(''),
  colour: z.string('must be a text such as "#e3a127"').regex(/^#[0-9a-f]{6}$/i, 'must be a colour such as "#e3a127"'),
  emissive: z.number('must be a number').min(0, 'must be 0 or more').max(1000, 'must be 1000 or less').default(0),
  roughness: unit.default(0.8),
  metalness: unit.default(0),
  opacity: unit.default(1),
  slot: z.string('must be a text').max(120).default(''),
  helper: z.boolean('must be true or false').default(false),
});
const paletteJson = z.strictObject({
  palette: z.string('must be a text').max(120),
  swatches: z.array(swatchJson, 'must be a list'),
});

/** Everything about a palette but its bytes: name, colours, surfaces, slots; a swatch a line. */
export const paletteToJson = (p: Palette): string =>
  `{\n  "palette": ${JSON.stringify(p.name)},\n  "swatches": [\n${p.swatches.map(({ byte: _byte, ...s }) => `    ${JSON.stringify(s)}`).join(',\n')}\n  ]\n}\n`;

/** @throws FileError with the line and what stands there */
export function readPaletteJson(text: string): PaletteFile {
  const errors: { error: number; offset: number }[] = [];
  const tree = parseTree(text, errors as Parameters<typeof parseTree>[1], { disallowComments: true });
  const first = errors[0];
  if (first)
    throw new FileError('paletteFile.noJson', {
      line: lineOf(text, first.offset),
      why: printParseErrorCode(first.error)
        .replaceAll(/([a-z])([A-Z])/g, '$1 $2')
        .toLowerCase(),
    });
  const parsed = paletteJson.safeParse(tree ? JSON.parse(text) : null);
  if (!parsed.success) {
    const issue = parsed.error.issues[0]!;
    const path = issue.path as (string | number)[];
    // The thing itself may be missing; then the line of what should hold it is told.
    let node: Node | undefined;
    for (let n = path.length; !node && tree && n >= 0; n--) node = findNodeAtLocation(tree, path.slice(0, n));
    const what =
      path.length === 0 ? 'the palette' : path.map((k) => (typeof k === 'number' ? `number ${k + 1}` : k)).join(' › ');
    const missing = node && path.length > 0 && tree && findNodeAtLocation(tree, path) === undefined;
    const extra = issue.code === 'unrecognized_keys' ? `has something unknown: ${issue.keys.join(', ')}` : null;
    throw new FileError('paletteFile.line', {
      line: lineOf(text, node?.offset ?? 0),
      what,
      why: extra ?? (missing ? 'is missing' : issue.message.charAt(0).toLowerCase() + issue.message.slice(1)),
    });
  }
  return checked(
    parsed.data.palette || null,
    parsed.data.swatches.map((s, i) => makeSwatch(Math.min(255, i + 1), s.name, s.colour, s)),
  );
}

/** A palette file of any known kind, told by its content. @throws FileError */
export function readPaletteFile(bytes: Uint8Array): PaletteFile {
  if (bytes.length === 0) throw new FileError('paletteFile.empty');
  if (bytes[0] === 0x89 && bytes[1] === 0x50) return readPaletteStrip(bytes);
  const text = strFromU8(bytes);
  if (/[\u0000\ufffd]/.test(text)) throw new FileError('paletteFile.neither');
  return /^\s*[{[]/.test(text) ? readPaletteJson(text) : readHexList(text);
}
