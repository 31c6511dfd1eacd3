import type { LooseJson } from '../model';

const isRecord = (v: unknown): v is LooseJson => typeof v === 'object' && v !== null;
/** What is no list, or no record, stays as it is: the schema will say so. */
const each = (v: unknown, change: (record: LooseJson) => LooseJson): unknown =>
  Array.isArray(v) ? v.map((r: unknown) => (isRecord(r) ? change(r) : r)) : v;

/**
 * Up to format 6 a table `cells` beside the records named the pictures of layers, by part and layer; what it says is put
 * into the layers themselves, as it stands since. Nothing is checked here.
 */
export function withOldCells(json: LooseJson): LooseJson {
  if (!(Number(json['formatVersion']) < 7)) return json;
  const { cells, ...rest } = json;
  const table = (isRecord(cells) ? cells : {}) as Record<string, object | undefined>;
  const part = (p: LooseJson): LooseJson => {
    const grid = (l: LooseJson): LooseJson => ({
      ...l,
      grid: { bounds: p['bounds'], ...table[`${String(p['id'])}/${String(l['id'])}`] },
    });
    const regions = p['regions'];
    return { ...p, layers: each(p['layers'], grid), ...(isRecord(regions) ? { regions: grid(regions) } : {}) };
  };
  const item = (b: LooseJson): LooseJson =>
    b['kind'] === 'part' && isRecord(b['part']) ? { ...b, part: part(b['part']) } : b;
  const out: LooseJson = { ...rest };
  for (const list of ['parts', 'stamps']) if (list in out) out[list] = each(out[list], part);
  if ('bin' in out) out['bin'] = each(out['bin'], item);
  return out;
}
