import { partContent } from '@sphalerite/core/model';
import { addReferenceEdit } from '@sphalerite/core/project';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';

/** Pictures larger than this are made smaller on the way in: a part is at most 256 cubes. */
const MOST_PIXELS = 1024;

/** Puts a picture behind the part on the bench: as high as what is there, on the floor, in the middle, in whole cubes. */
export async function addReferencePicture(file: File): Promise<void> {
  const session = useSession();
  const part = session.part;
  if (!part) return;
  let bitmap: ImageBitmap;
  try {
    bitmap = await createImageBitmap(file);
  } catch {
    useNotices().say(`“${file.name}” cannot be read as a picture. Use a PNG, JPEG or WebP file.`, { kind: 'error' });
    return;
  }
  const k = Math.min(1, MOST_PIXELS / Math.max(bitmap.width, bitmap.height));
  const canvas = document.createElement('canvas');
  canvas.width = Math.max(1, Math.round(bitmap.width * k));
  canvas.height = Math.max(1, Math.round(bitmap.height * k));
  canvas.getContext('2d')!.drawImage(bitmap, 0, 0, canvas.width, canvas.height);
  const b = partContent(part) ?? part.bounds;
  const height = Math.max(1, b.size[1]),
    width = Math.max(1, Math.round((height * bitmap.width) / bitmap.height));
  const png = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
  session.apply(addReferenceEdit, {
    name: file.name.slice(0, 60),
    part: part.id,
    plane: 'front',
    bytes: new Uint8Array(await png!.arrayBuffer()),
    at: [Math.round(b.min[0] + b.size[0] / 2 - width / 2), part.bounds.min[1]],
    size: [width, height],
  });
}
