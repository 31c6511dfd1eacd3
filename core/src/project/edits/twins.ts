import type { Axis } from '../../math';
import { type Id, type Project, type Side, find, freeName, must, replaceRecord } from '../../model';
import { EditError, defineEdit } from '../edit';

/** A part that is to follow another. */
export interface NewTwin {
  readonly part: Id;
  readonly source: Id;
  readonly axis: Axis;
  /** Where the plane between the two stands at rest, in project units. */
  readonly plane: number;
}

const opposite: Readonly<Record<Side, Side>> = { left: 'right', right: 'left', centre: 'centre' };

/** The sides that a source and its twin get: what one of them says, else what the axis does. */
function sidesOf(source: Side, twin: Side, axis: Axis): [Side, Side] {
  if (source !== 'centre') return [source, opposite[source]];
  if (twin !== 'centre') return [opposite[twin], twin];
  return axis === 0 ? ['left', 'right'] : ['centre', 'centre'];
}

/** Makes parts the mirrored twins of others: from now on, what happens to one happens to both. */
export const makeTwinsEdit = defineEdit<{ pairs: readonly NewTwin[] }>({
  name: 'makeTwins',
  label: (a, p) =>
    a.pairs.length === 1
      ? `${must(p.parts, a.pairs[0]!.part, 'part').name} follows its other side`
      : `${a.pairs.length} pairs kept alike`,
  touches: (a) => a.pairs.flatMap((t) => [t.part, t.source]),
  run: (project, a) =>
    a.pairs.reduce((p, pair) => {
      const part = must(p.parts, pair.part, 'part'),
        source = must(p.parts, pair.source, 'part');
      if (part === source) throw new EditError('twins.itself', { part: part.name });
      if (source.twin) throw new EditError('twins.chain', { source: source.name });
      if (p.parts.some((o) => o.twin?.source === part.id)) throw new EditError('twins.followed', { part: part.name });
      const [side, mine] = sidesOf(source.side, part.side, pair.axis);
      const others = (sideOf: Side, id: Id): string[] =>
        p.parts.filter((o) => o.side === sideOf && o.id !== id).map((o) => o.name);
      const lead = { ...source, side, name: freeName(source.name, others(side, source.id)) };
      const name = freeName(lead.name, others(mine, part.id));
      return {
        ...p,
        parts: replaceRecord(replaceRecord(p.parts, lead), {
          ...part,
          name,
          side: mine,
          twin: { source: source.id, axis: pair.axis, plane: pair.plane },
        }),
      };
    }, project),
});

/** Lets a twin stand for itself from now on, as it is. */
export const makeIndependentEdit = defineEdit<{ part: Id }>({
  name: 'makeIndependent',
  risky: () => true,
  label: (a, p) => `${find(p.parts, a.part)?.name ?? 'Part'} stands for itself`,
  touches: (a) => [a.part],
  run(project: Project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    if (!part.twin) return project;
    return {
      ...project,
      parts: replaceRecord(project.parts, {
        ...part,
        twin: null,
        layers: part.layers.map((l) => ({ ...l, id: ctx.newId() })),
      }),
    };
  },
});
