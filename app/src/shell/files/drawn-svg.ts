/** Edge of a drawing as a picture, in pixels: as fine as most of what becomes cubes needs. */
const EDGE = 1024;

/**
 * A drawing (SVG) as a PNG, as large as it says or a thousand pixels along its longer edge. Nothing in it runs, and nothing that it
 * names is fetched: it is shown as an image is.
 *
 * @throws when it is none
 */
export async function drawnSvg(bytes: Uint8Array<ArrayBuffer>): Promise<Uint8Array<ArrayBuffer>> {
  const address = URL.createObjectURL(new Blob([bytes], { type: 'image/svg+xml' }));
  try {
    const image = new Image();
    image.src = address;
    await image.decode();
    // One without a size of its own is as wide as it is high.
    const [w, h] = [image.naturalWidth || 1, image.naturalHeight || 1],
      scale = EDGE / Math.max(w, h);
    const canvas = new OffscreenCanvas(Math.max(1, Math.round(w * scale)), Math.max(1, Math.round(h * scale)));
    canvas.getContext('2d')!.drawImage(image, 0, 0, canvas.width, canvas.height);
    const png = await canvas.convertToBlob({ type: 'image/png' });
    return new Uint8Array(await png.arrayBuffer());
  } finally {
    URL.revokeObjectURL(address);
  }
}
