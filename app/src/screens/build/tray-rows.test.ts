import { type Part, type Project, groupsOfParts, idsFrom, lying, makePart, makeProject } from '@sphalerite/core/model';
import { apply, editContext, placePartsEdit } from '@sphalerite/core/project';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { groupOfRow, groupRow, landing, stepping, trayRows } from './tray-rows';

/** Parts by their names, each with the group before its colon. */
function project(...names: string[]): Project {
  const empty = makeProject('p', 'Quay', idsFrom('quay'));
  const parts = names.map((n): Part => {
    const [name, group] = n.split(':').reverse();
    return makePart(name!, `${name!}-cubes`, name!, empty.palettes[0]!.id, empty.parts[0]!.bounds, {
      group: group ?? null,
    });
  });
  return { ...empty, parts, rig: { ...empty.rig, mounts: [] } };
}
const seen = (p: Project): string[] =>
  lying(p.parts).flatMap((l) => l.parts.map((o) => (l.group === null ? o.name : `${l.group}:${o.name}`)));
const rows = (p: Project): string[] =>
  trayRows(lying(p.parts)).flatMap((r) => [r.id, ...(r.children ?? []).map((c) => c.id)]);

describe('parts as they lie in the tray', () => {
  const p = project('a', 'G:b', 'c', 'G:d', 'e');
  it('are under the name of their group, where the first of them lies', () => {
    expect(seen(p)).toEqual(['a', 'G:b', 'G:d', 'c', 'e']);
    expect(groupOfRow(groupRow('Left "half" / 2'))).toBe('Left "half" / 2');
    expect(groupRow('"')).not.toContain('"');
  });
  it.each([
    ['a', groupRow('G'), 'on', ['G:b', 'G:d', 'G:a', 'c', 'e']],
    ['a', 'd', 'before', ['G:b', 'G:a', 'G:d', 'c', 'e']],
    ['d', 'c', 'after', ['a', 'G:b', 'c', 'd', 'e']],
    ['b', groupRow('G'), 'before', ['a', 'b', 'G:d', 'c', 'e']],
    ['a', null, 'on', ['G:b', 'G:d', 'c', 'e', 'a']],
  ] as const)('%s dropped at %s, %s', (part, row, place, after) => {
    const to = landing(lying(p.parts), row, place);
    expect(seen(apply(p, placePartsEdit, { parts: [part], ...to }, editContext('drop')))).toEqual(after);
  });
  it('any drop and any step moves what was taken and keeps the order of all else', () => {
    const names = fc.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'f'), { minLength: 2 });
    fc.assert(
      fc.property(
        names.chain((n) =>
          fc.tuple(
            fc.constant(n),
            fc.array(fc.constantFrom('', 'G:', 'H:'), { minLength: n.length, maxLength: n.length }),
          ),
        ),
        fc.nat(),
        fc.nat(),
        fc.constantFrom('before', 'on', 'after', 'up', 'down', 'in', 'out'),
        ([list, groups], which, where, how) => {
          const q = project(...list.map((n, i) => groups[i]! + n)),
            part = list[which % list.length]!,
            all = rows(q),
            row = all[where % all.length]!;
          const to =
            how === 'before' || how === 'on' || how === 'after'
              ? landing(lying(q.parts), row, how)
              : stepping(lying(q.parts), part, how);
          if (!to) return;
          const after = apply(q, placePartsEdit, { parts: [part], ...to }, editContext('any'));
          const others = (o: Project): string[] => seen(o).filter((s) => !s.endsWith(part));
          expect(others(after)).toEqual(others(q));
          expect(after.parts.find((o) => o.name === part)!.group).toBe(to.group);
          expect(after.parts).toHaveLength(q.parts.length);
        },
      ),
    );
  });
  it('steps go by whole groups outside and by parts inside', () => {
    expect(stepping(lying(p.parts), groupRow('G'), 'up')).toEqual({ before: 'a', group: 'G' });
    expect(stepping(lying(p.parts), 'c', 'in')).toEqual({ before: 'c', group: 'G' });
    expect(stepping(lying(p.parts), 'b', 'up')).toBeNull();
    expect(groupsOfParts(p.parts)).toEqual(['G']);
  });
});
