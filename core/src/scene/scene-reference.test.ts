import fc from 'fast-check';
import { expect, it } from 'vitest';
import {
  type Mat4,
  type Vec3,
  invertMat,
  matrixOf,
  mulMat,
  quatFromAxisAngle,
  transformPoint,
  translation,
} from '../math';
import {
  type Part,
  type Placement,
  type Project,
  type Repeat,
  type Scene,
  NO_VARIATION,
  checkSound,
  composite,
  find,
  idsFrom,
  makeProject,
  must,
  placementsOf,
} from '../model';
import * as edits from '../project';
import { type Edit, apply, editContext } from '../project';
import { boxStroke } from '../sculpt';
import { Gatherer } from './gather';

const view = (scene: Scene) => ({ of: 'scene', scene: scene.id }) as const;

/** Three parts of a few cubes and a scene; the third is the mirrored twin of the first. */
function start(): Project {
  let p = makeProject('random', 'Random', idsFrom('random'), 'scene', [3, 2, 2]);
  const run = <A>(edit: Edit<A>, args: A, seed: string): void => void (p = apply(p, edit, args, editContext(seed)));
  run(
    edits.addPartEdit,
    { name: 'Crate', bounds: { min: [-1, 0, -1], size: [2, 3, 2] }, pivot: [0, 0, 0], cell: 0.5 },
    'a',
  );
  run(edits.addPartEdit, { name: 'Twin', bounds: { min: [-3, 0, 0], size: [3, 2, 2] } }, 'b');
  for (const [i, part] of p.parts.slice(0, 2).entries())
    run(
      edits.strokeEdit,
      {
        part: part.id,
        layer: part.layers[0]!.id,
        stroke: boxStroke('add', 3 + i, [{ min: part.bounds.min, size: [2, 2, 1] }]),
      },
      `c${i}`,
    );
  run(edits.makeTwinsEdit, { pairs: [{ part: p.parts[2]!.id, source: p.parts[0]!.id, axis: 0, plane: 4 }] }, 'd');
  run(edits.addSceneEdit, { name: 'Night' }, 'e');
  run(edits.addSceneLayerEdit, { scene: p.scenes[0]!.id, name: 'Second' }, 'f');
  return p;
}

/** Cubes as they stand, "place: colour", sorted. */
type Seen = readonly string[];
const put = (out: string[], part: Part, m: Mat4): void => {
  const anchor = translation(part.pivot.map((v) => -v / 2) as unknown as Vec3);
  const own = mulMat(
    m,
    mulMat(matrixOf({ t: [0, 0, 0], q: [0, 0, 0, 1], s: [part.cell, part.cell, part.cell] }), anchor),
  );
  composite(part).forEach((x, y, z, v) => out.push(key(transformPoint(own, [x + 0.5, y + 0.5, z + 0.5]), v)));
};
const key = (p: Vec3, v: number): string => `${p.map((c) => (Math.round(c * 100) / 100 + 0).toFixed(2)).join()}:${v}`;

/** What stands in a scene, everything worked out one by one: a slow and plain reading of the document. */
function expanded(p: Project, scene: Scene): Seen {
  const out: string[] = [],
    all = placementsOf(scene);
  const world = (id: string | null): Mat4 => {
    const at = all.find((o) => o.id === id);
    return at ? mulMat(world(at.parent), matrixOf(at)) : translation([0, 0, 0]);
  };
  const hidden = (o: Placement): boolean => must(scene.layers, o.layer, 'layer').hidden || isHidden(o);
  const isHidden = (o: Placement): boolean =>
    o.hidden || (o.parent !== null && isHidden(all.find((a) => a.id === o.parent)!));
  const below = (id: string): Placement[] => all.filter((o) => hangs(o, id));
  const hangs = (o: Placement, id: string): boolean =>
    o.id === id ||
    (o.parent !== null &&
      hangs(
        all.find((a) => a.id === o.parent)!,
        id,
      ));
  const draw = (o: Placement, over: (m: Mat4) => Mat4): void => {
    if (hidden(o) || o.shows.kind !== 'part') return;
    const part = find(p.parts, o.shows.part);
    if (part && !part.hidden) put(out, part, over(world(o.id)));
  };
  for (const o of all) draw(o, (m) => m);
  for (const r of scene.repeats) {
    const of = all.find((o) => o.id === r.placement)!,
      parent = world(of.parent);
    const inParent =
      (m: Mat4): ((w: Mat4) => Mat4) =>
      (w) =>
        mulMat(mulMat(parent, m), mulMat(invertMat(parent), w));
    if (r.kind === 'mirror') {
      const image = translation([0, 0, 0]).map((v, i) => (i === r.axis * 5 ? -1 : i === 12 + r.axis ? 2 * r.at : v));
      for (const o of below(of.id)) draw(o, inParent(image));
    }
    for (const { copy, m, second } of places(r, of.t)) {
      const e = r.exceptions.find((x) => x.copy === copy);
      if (e?.gone) continue;
      const anchor = transformPoint(m, of.t);
      const moved = e
        ? mulMat(
            mulMat(mulMat(translation(anchor), matrixOf(e)), translation(anchor.map((v) => -v) as unknown as Vec3)),
            m,
          )
        : m;
      if (second) {
        const part = find(p.parts, second);
        if (part && !part.hidden && !hidden(of)) put(out, part, inParent(moved)(world(of.id)));
      } else for (const o of below(of.id)) draw(o, inParent(moved));
    }
  }
  return out.sort();
}

function places(r: Repeat, t: Vec3): { copy: number; m: Mat4; second: string | null }[] {
  const out: { copy: number; m: Mat4; second: string | null }[] = [];
  if (r.kind === 'line') {
    let copy = 0;
    for (let y = 0; y < r.counts[1]; y++)
      for (let z = 0; z < r.counts[2]; z++)
        for (let x = 0; x < r.counts[0]; x++) {
          if (x + y + z === 0) continue;
          const second = r.second?.kind === 'part' && (x + y + z) % 2 === 1 ? r.second.part : null;
          out.push({ copy: ++copy, m: translation([x * r.step[0], y * r.step[1], z * r.step[2]]), second });
        }
  } else if (r.kind === 'ring')
    for (let k = 1; k < r.count; k++) {
      const angle = ((r.degrees / r.count) * k * Math.PI) / 180;
      const turn = matrixOf({ t: [0, 0, 0], q: quatFromAxisAngle([0, 1, 0], angle), s: [1, 1, 1] });
      const to = transformPoint(turn, t);
      out.push({ copy: k, m: r.turning ? turn : translation([to[0] - t[0], 0, to[2] - t[2]]), second: null });
    }
  return out;
}

/** Numbers that an action is made of. */
const action = fc.tuple(
  fc.integer({ min: 0, max: 13 }),
  fc.nat(1000),
  fc.nat(1000),
  fc.integer({ min: -8, max: 8 }),
  fc.integer({ min: -8, max: 8 }),
);

/** One edit by its numbers; the same project where it makes no sense. */
function act(p: Project, [what, i, k, x, z]: readonly [number, number, number, number, number], n: number): Project {
  const scene = p.scenes[0]!,
    all = placementsOf(scene);
  const run = <A>(edit: Edit<A>, args: A): Project => apply(p, edit, args, editContext(`act ${n}`));
  const one = all[i % Math.max(1, all.length)],
    other = all[k % Math.max(1, all.length)];
  const part = p.parts[i % p.parts.length]!;
  const base = { scene: scene.id };
  const turn = quatFromAxisAngle([0, 1, 0], ((k % 4) * Math.PI) / 2);
  if (what <= 1 || !one || !other)
    return run(edits.placeEdit, {
      ...base,
      placements: [
        {
          shows: k % 5 === 0 ? { kind: 'group' } : { kind: 'part', part: part.id },
          t: [x, (i % 3) - 1, z],
          q: turn,
          layer: scene.layers[k % 2]!.id,
          parent: k % 3 === 0 && one ? one.id : null,
        },
      ],
    });
  switch (what) {
    case 2:
      return run(edits.changePlacementsEdit, {
        ...base,
        changes: [{ id: one.id, change: { t: [x, 0, z], q: turn, s: k % 2 ? [1, 1, 1] : [2, 2, 2] } }],
      });
    case 3:
      return run(edits.changePlacementsEdit, { ...base, changes: [{ id: one.id, change: { hidden: !one.hidden } }] });
    case 4:
      return run(edits.hangPlacementsEdit, { ...base, placements: [one.id], parent: k % 2 ? other.id : null });
    case 5:
      return run(edits.duplicatePlacementsEdit, {
        ...base,
        placements: [one.id],
        shift: [x, 0, z],
        linked: k % 2 === 0,
      });
    case 6:
      return run(edits.removePlacementsEdit, { ...base, placements: [one.id] });
    case 7:
      return run(edits.repeatEdit, {
        ...base,
        placement: one.id,
        wishes:
          k % 7 === 0
            ? { kind: 'mirror', axis: (i % 3) as 0 | 1 | 2, at: x, vary: NO_VARIATION }
            : k % 2
              ? {
                  kind: 'line',
                  counts: [1 + (i % 3), 1, 1 + (k % 2)],
                  step: [x, 1, z],
                  second: k % 3 ? null : { kind: 'part', part: part.id },
                  vary: NO_VARIATION,
                }
              : { kind: 'ring', count: 2 + (i % 4), degrees: 360, turning: i % 2 === 0, vary: NO_VARIATION },
      });
    case 8: {
      const r = scene.repeats[i % Math.max(1, scene.repeats.length)];
      if (!r) return p;
      const is = k % 3 === 0 ? null : { gone: k % 3 === 1, t: [x, 1, z] as Vec3, q: turn, s: [1, 1, 1] as Vec3 };
      return run(edits.repeatExceptionEdit, { ...base, repeat: r.id, copy: 1 + (k % 4), is });
    }
    case 9:
      return run(edits.breakRepeatEdit, { ...base, placement: one.id });
    case 10:
      return run(edits.changeSceneLayerEdit, {
        ...base,
        layer: scene.layers[k % 2]!.id,
        change: { hidden: i % 2 === 0 },
      });
    case 11:
      return run(edits.strokeEdit, {
        part: part.id,
        layer: part.layers[0]!.id,
        stroke: boxStroke(k % 2 ? 'add' : 'erase', 5, [{ min: part.bounds.min, size: [1, 1 + (i % 2), 1] }]),
      });
    case 12:
      return one.shows.kind === 'part' ? run(edits.ownPartsEdit, { ...base, placements: [one.id] }) : p;
    default:
      return run(edits.groupPlacementsEdit, { ...base, placements: [one.id, other.id], name: 'Group' });
  }
}

it('after any edits and undoing, what is drawn is what a plain reading of the document gives, kept from step to step or made anew', () => {
  fc.assert(
    fc.property(
      fc.array(action, { minLength: 1, maxLength: 28 }),
      fc.array(fc.boolean(), { minLength: 28, maxLength: 28 }),
      (actions, back) => {
        const gatherer = new Gatherer();
        const past = [start()];
        for (const [n, a] of actions.entries()) {
          let p = past.at(-1)!;
          // A row of undos, as Ctrl+Z held down: a project that was seen before is seen again.
          if (back[n] && past.length > 2 && n % 5 === 4) {
            past.length -= 2;
            p = past.at(-1)!;
          } else {
            try {
              p = act(p, a, n);
            } catch (e) {
              if (!(e instanceof edits.EditError)) throw e;
            }
            if (placementsOf(p.scenes[0]!).length > 24) p = past.at(-1)!;
            past.push(p);
          }
          const scene = p.scenes[0]!;
          const seen = (list: ReturnType<Gatherer['gather']>): Seen =>
            list
              .flatMap(({ geometry, matrix }) => {
                const out: string[] = [];
                if (geometry.kind === 'grid')
                  geometry.grid.forEach((x, y, z, v) =>
                    out.push(key(transformPoint(matrix, [x + 0.5, y + 0.5, z + 0.5]), v)),
                  );
                return out;
              })
              .sort();
          const wanted = expanded(p, scene);
          expect(seen(gatherer.gather(p, view(scene)))).toEqual(wanted);
          expect(seen(new Gatherer().gather(p, view(scene)))).toEqual(wanted);
        }
        checkSound(past.at(-1)!);
      },
    ),
    { numRuns: Number(process.env['SCENE_RUNS'] ?? 60) },
  );
}, 120_000);
