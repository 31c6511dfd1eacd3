import { describe, expect, it } from 'vitest';
import { type Project, composite, idsFrom, inColourway, makeProject } from '../../model';
import { type Swatch, colourDistance, makeSwatch } from '../../palette';
import { boxStroke } from '../../sculpt';
import { CellSet } from '../../voxel';
import { type Edit, apply, editContext, redo, record, startHistory, undo, current } from '..';
import * as edits from '.';

let n = 0;
function hand(project: Project = makeProject('p', 'Cart', idsFrom('cart'), 'prop', [40, 40, 40])) {
  const h = {
    p: project,
    do<A>(edit: Edit<A>, args: A) {
      h.p = apply(h.p, edit, args, editContext(`paint test ${n++}`, 1000 + n));
      return h;
    },
    palette: () => h.p.palettes[0]!,
    fill: (
      part: number,
      value: number,
      min: readonly [number, number, number],
      size: readonly [number, number, number],
    ) =>
      h.do(edits.strokeEdit, {
        part: h.p.parts[part]!.id,
        layer: h.p.parts[part]!.layers[0]!.id,
        stroke: boxStroke('add', value, [{ min, size }]),
      }),
    add: (name: string, at: readonly [number, number, number] = [0, 0, 0]) =>
      h.do(edits.addPartEdit, {
        name,
        bounds: { min: [-20, 0, -20], size: [40, 40, 40] },
        pivot: [0, 0, 0],
        at: [...at],
      }),
  };
  return h;
}

/** Six parts whose 40,000 cubes are Oak (4), with a stamp and a binned part of it besides. */
function sixParts() {
  const h = hand();
  for (let i = 1; i < 8; i++) h.add(`Board ${i}`);
  for (let i = 0; i < 6; i++)
    h.fill(i, 4, [-20, 0, -20], i < 4 ? [40, 10, 17] : [40, 10, 16]).fill(i, 5, [-20, 20, 0], [10, 2, 2]);
  h.fill(6, 4, [0, 0, 0], [2, 2, 2]).fill(7, 2, [0, 0, 0], [3, 3, 3]);
  h.do(edits.addStampEdit, { name: 'Peg', cells: composite(h.p.parts[6]!), palette: h.palette().id, cell: 1 }).do(
    edits.deletePartEdit,
    { part: h.p.parts[6]!.id },
  );
  return h;
}

describe('deleting a swatch that 40,000 cubes in six parts use', () => {
  it('is counted before, part by part, stamps and the bin apart', () => {
    const h = sixParts();
    const use = edits.paletteUse(h.p, h.palette().id);
    expect(use.parts.filter((u) => u.counts[4]! > 0).map((u) => u.counts[4])).toEqual([
      6800, 6800, 6800, 6800, 6400, 6400,
    ]);
    expect([use.total[4], use.total[5], use.kept[4]]).toEqual([40_000, 240, 16]);
  });
  it('removes its cubes everywhere, or moves them, in one step that undoes', () => {
    const h = sixParts(),
      before = h.p;
    h.do(edits.addColourwayEdit, { name: 'Frost' }).do(edits.editSwatchEdit, {
      palette: h.palette().id,
      byte: 4,
      change: { colour: '#334455' },
      colourway: h.p.colourways[0]!.id,
    });
    const gone = apply(
      h.p,
      edits.deleteSwatchesEdit,
      { palette: h.palette().id, bytes: [4], moveTo: null },
      editContext('gone'),
    );
    const use = edits.paletteUse(gone, h.palette().id);
    expect([use.total[4], use.kept[4], use.total[5], use.total[2]]).toEqual([0, 0, 240, 27]);
    expect(gone.palettes[0]!.swatches.some((s) => s.byte === 4)).toBe(false);
    expect(gone.colourways[0]!.changes).toEqual([]);
    // Parts that had none of it are the very same ones.
    expect(gone.parts.at(-1)).toBe(h.p.parts.at(-1));
    const moved = apply(
      before,
      edits.deleteSwatchesEdit,
      { palette: h.palette().id, bytes: [4], moveTo: 5 },
      editContext('moved'),
    );
    const after = edits.paletteUse(moved, h.palette().id);
    expect([after.total[4], after.total[5], after.kept[5]]).toEqual([0, 40_240, 16]);
    const view = {};
    const done = record(startHistory(before, view, 0), {
      label: 'Delete',
      at: 1,
      where: '',
      project: moved,
      viewBefore: view,
      viewAfter: view,
    });
    expect(current(undo(done))).toBe(before);
    expect(current(redo(undo(done)))).toBe(moved);
  });
  it('locked layers lose theirs too, so that none is left without a colour; the last swatch stays', () => {
    const h = sixParts();
    h.do(edits.setLayerEdit, { part: h.p.parts[0]!.id, layer: h.p.parts[0]!.layers[0]!.id, locked: true });
    h.do(edits.deleteSwatchesEdit, { palette: h.palette().id, bytes: [4], moveTo: 5 });
    expect(edits.partUse(h.p.parts[0]!)[5]).toBe(6840);
    expect(() =>
      h.do(edits.deleteSwatchesEdit, {
        palette: h.palette().id,
        bytes: h.palette().swatches.map((s) => s.byte),
        moveTo: null,
      }),
    ).toThrow(/keeps at least one swatch/);
    expect(() => h.do(edits.deleteSwatchesEdit, { palette: h.palette().id, bytes: [5], moveTo: 5 })).toThrow(
      /a swatch that stays/,
    );
  });
});

describe('replacing', () => {
  it('a swatch in a selection, a part or the project; locked layers keep theirs', () => {
    const h = sixParts(),
      palette = h.palette().id;
    const count = (i: number) => edits.partUse(h.p.parts[i]!)[9];
    h.do(edits.replaceSwatchEdit, {
      palette,
      from: [4],
      to: 9,
      part: h.p.parts[0]!.id,
      layer: h.p.parts[0]!.layers[0]!.id,
      within: CellSet.ofBoxes([{ min: [-20, 0, -20], size: [40, 1, 1] }]),
    });
    expect([count(0), count(1)]).toEqual([40, 0]);
    h.do(edits.replaceSwatchEdit, { palette, from: [4], to: 9, part: h.p.parts[1]!.id });
    expect([count(0), count(1)]).toEqual([40, 6800]);
    h.do(edits.setLayerEdit, { part: h.p.parts[2]!.id, layer: h.p.parts[2]!.layers[0]!.id, locked: true });
    h.do(edits.replaceSwatchEdit, { palette, from: [4, 5], to: 9 });
    expect([count(0), count(1), count(2), count(3)]).toEqual([6840, 6840, 0, 6840]);
    expect(() => h.do(edits.replaceSwatchEdit, { palette, from: [4], to: 200 })).toThrow(/no swatch 200/);
    expect(() =>
      h.do(edits.replaceSwatchEdit, {
        palette,
        from: [4],
        to: 9,
        part: h.p.parts[2]!.id,
        layer: h.p.parts[2]!.layers[0]!.id,
      }),
    ).toThrow(/locked/);
  });
  it('a palette of 200 by one of 32: each cube has the nearest colour of the new one', () => {
    const h = hand();
    const colour = (i: number): string => `#${((i * 0x9e3779b1) >>> 8).toString(16).padStart(6, '0')}`;
    const old: Swatch[] = Array.from({ length: 200 }, (_, i) => makeSwatch(i + 1, `old ${i}`, colour(i)));
    h.do(edits.setSwatchesEdit, { palette: h.palette().id, swatches: old });
    for (let i = 0; i < 200; i++) h.fill(0, i + 1, [(i % 20) - 10, Math.floor(i / 20), 0], [1, 1, 1]);
    const before = composite(h.p.parts[0]!);
    const next = Array.from({ length: 32 }, (_, i) => makeSwatch(i + 1, `new ${i}`, colour(i + 500)));
    h.do(edits.replacePaletteEdit, { palette: h.palette().id, name: 'Reeds', swatches: next });
    expect(h.palette()).toMatchObject({ name: 'Reeds', swatches: next });
    const grid = composite(h.p.parts[0]!);
    const worse: number[] = [];
    before.forEach((x, y, z, v) => {
      const is = colourDistance(next[grid.get(x, y, z) - 1]!.colour, old[v - 1]!.colour);
      if (is > Math.min(...next.map((s) => colourDistance(s.colour, old[v - 1]!.colour))) + 1e-12) worse.push(v);
    });
    expect([worse, grid.count]).toEqual([[], 200]);
  });
  it('appending unites equals and says when there is no room', () => {
    const h = hand(),
      palette = h.palette().id;
    h.do(edits.appendSwatchesEdit, {
      palette,
      swatches: [makeSwatch(1, 'Other clay', '#b5533a'), makeSwatch(2, 'Plum', '#43305a')],
    });
    expect(
      h
        .palette()
        .swatches.map((s) => s.name)
        .slice(-2),
    ).toEqual(['Lamplight', 'Plum']);
    const many = Array.from({ length: 250 }, (_, i) => makeSwatch(1, '', `#0102${i.toString(16).padStart(2, '0')}`));
    expect(() => h.do(edits.appendSwatchesEdit, { palette, swatches: many })).toThrow(
      /room for 238 more swatches, and 12 of these/,
    );
    expect(() => h.do(edits.addSwatchEdit, { palette, name: 'x', colour: 'red' })).toThrow(/not a colour/);
    expect(() => h.do(edits.editSwatchEdit, { palette, byte: 1, change: { opacity: 1.5 } })).toThrow(/from 0 to 1/);
  });
  it('sorting moves swatches, never cubes', () => {
    const h = sixParts(),
      grids = h.p.parts.map((p) => p.layers[0]!.grid);
    h.do(edits.orderSwatchesEdit, { palette: h.palette().id, bytes: [16, 4, 1] });
    expect(h.palette().swatches.map((s) => s.byte)).toEqual([
      16,
      4,
      1,
      ...Array.from({ length: 16 }, (_, i) => i + 1).filter((b) => ![16, 4, 1].includes(b)),
    ]);
    expect(h.p.parts.map((p) => p.layers[0]!.grid)).toEqual(grids);
  });
});

describe('colourways', () => {
  it('four variants share every cube; an edit touches one, a new swatch reaches all', () => {
    const h = sixParts(),
      palette = h.palette().id;
    for (const name of ['Dusk', 'Frost', 'Reed', 'Madder']) h.do(edits.addColourwayEdit, { name });
    const [dusk, frost] = h.p.colourways.map((c) => c.id) as [string, string];
    const colour = (way: string | null, byte: number) =>
      inColourway(h.p, way).palettes[0]!.swatches.find((s) => s.byte === byte)?.colour;
    h.do(edits.editSwatchEdit, { palette, byte: 4, change: { colour: '#334455', emissive: 2 }, colourway: frost });
    expect(h.p.colourways.map((c) => colour(c.id, 4))).toEqual(['#7d5a38', '#334455', '#7d5a38', '#7d5a38']);
    expect(colour(null, 4)).toBe('#7d5a38');
    expect(inColourway(h.p, frost).parts).toBe(h.p.parts);
    h.do(edits.addSwatchEdit, { palette, name: 'Plum', colour: '#43305a' });
    expect(h.p.colourways.map((c) => colour(c.id, 17))).toEqual(Array.from({ length: 4 }, () => '#43305a'));
    // What only the palette says is changed in all.
    h.do(edits.editSwatchEdit, { palette, byte: 4, change: { name: 'Plank', slot: 'wood' }, colourway: frost });
    expect(h.palette().swatches.find((s) => s.byte === 4)).toMatchObject({
      name: 'Plank',
      slot: 'wood',
      colour: '#7d5a38',
    });
    h.do(edits.editSwatchEdit, { palette, byte: 4, change: { colour: '#112233' } });
    expect(h.p.colourways.map((c) => colour(c.id, 4))).toEqual(['#112233', '#334455', '#112233', '#112233']);
    h.do(edits.addColourwayEdit, { name: 'Frost', from: frost });
    expect(h.p.colourways.at(-1)).toMatchObject({ name: 'Frost 2', changes: h.p.colourways[1]!.changes });
    h.do(edits.moveColourwayEdit, { colourway: dusk, index: 4 }).do(edits.renameColourwayEdit, {
      colourway: dusk,
      name: 'Night',
    });
    expect(h.p.colourways.map((c) => c.name)).toEqual(['Frost', 'Reed', 'Madder', 'Frost 2', 'Night']);
    h.do(edits.resetLookEdit, { colourway: frost, palette, byte: 4 });
    expect(colour(frost, 4)).toBe('#112233');
  });
  it('come back from the bin, without what has gone meanwhile', () => {
    const h = hand(),
      palette = h.palette().id;
    h.do(edits.addColourwayEdit, { name: 'Frost' });
    const way = h.p.colourways[0]!.id;
    for (const byte of [4, 5])
      h.do(edits.editSwatchEdit, { palette, byte, change: { colour: '#334455' }, colourway: way });
    h.do(edits.deleteColourwayEdit, { colourway: way })
      .do(edits.deleteSwatchesEdit, { palette, bytes: [5], moveTo: null })
      .do(edits.restoreEdit, { item: h.p.bin[0]!.id });
    expect(h.p.colourways.map((c) => [c.name, c.changes.map((o) => o.byte)])).toEqual([['Frost', [4]]]);
    expect(() => h.do(edits.renameColourwayEdit, { colourway: way, name: ' ' })).toThrow(/1 to 120/);
  });
});

describe('finishes on parts', () => {
  const bricks = {
    kind: 'bricks',
    ramp: [1, 2, 3],
    seed: 3,
    long: 4,
    high: 2,
    gap: 1,
    joint: 13,
    bond: 0.5,
    sides: 'walls',
    upright: false,
  } as const;
  const at = (h: ReturnType<typeof hand>, i: number) => ({
    part: h.p.parts[i]!.id,
    layer: h.p.parts[i]!.layers[0]!.id,
  });
  it('courses run on from part to part, wherever these stand', () => {
    const h = hand().add('Beside', [7, 4, 0]);
    h.fill(0, 4, [-20, 0, 0], [20, 20, 1]).fill(1, 4, [-7, 0, 0], [20, 16, 1]);
    h.do(edits.finishEdit, { targets: [at(h, 0), at(h, 1)], finish: bricks });
    const [a, b] = h.p.parts.map(composite) as [ReturnType<typeof composite>, ReturnType<typeof composite>];
    for (let y = 4; y < 20; y++)
      for (let x = -15; x < 0; x++) {
        const there = b.get(x + 8, y - 4, 0);
        // Fifteen to the right is three bricks with their joints on: joints stand at the same places.
        if (x + 8 >= -7 && x + 8 < 13) expect(there === 13, `${x},${y}`).toBe(a.get(x, y, 0) === 13);
      }
  });
  it('are refused on locked layers and with sizes that make no sense; a turned part keeps its own lattice', () => {
    const h = hand().fill(0, 4, [0, 0, 0], [4, 4, 4]);
    expect(() => h.do(edits.finishEdit, { targets: [at(h, 0)], finish: { ...bricks, long: 0 } })).toThrow(
      /length and height/,
    );
    expect(() =>
      h.do(edits.finishEdit, {
        targets: [at(h, 0)],
        finish: { kind: 'occlusion', ramp: [], seed: 1, reach: 40, strength: 1, blend: 'bands' },
      }),
    ).toThrow(/1 to 16/);
    h.do(edits.setLayerEdit, { ...at(h, 0), locked: true });
    expect(() => h.do(edits.finishEdit, { targets: [at(h, 0)], finish: bricks })).toThrow(/locked/);
    expect(edits.heightsOf(h.p, [h.p.parts[0]!.id])).toEqual({ low: 0, high: 4 });
    expect(edits.paintFrame(h.p.parts[0]!, [])).toEqual({ half: [0, 0, 0], cell: 1 });
  });
});
