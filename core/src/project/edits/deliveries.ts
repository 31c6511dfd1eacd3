import {
  type DeliveryProfile,
  type DeliveryValues,
  type Id,
  type Project,
  deliveriesOf,
  deliveryOf,
  deliveryProfileKind,
  freeName,
  must,
  replaceRecord,
} from '../../model';
import { recordToBin } from '../bin';
import { EditError, defineEdit } from '../edit';

/** What changes of a delivery: fields of its groups, or what stands beside them. */
export type DeliveryChange = { readonly [K in keyof DeliveryValues]?: Partial<DeliveryValues[K]> } & Partial<
  Pick<DeliveryProfile, 'name' | 'formats' | 'options' | 'tiles'>
>;

function found(project: Project, id: Id): DeliveryProfile {
  const profile = deliveryOf(project, id);
  if (!profile) throw new EditError('delivery.gone');
  return profile;
}
const names = (project: Project, but?: DeliveryProfile): string[] =>
  deliveriesOf(project)
    .filter((p) => p !== but)
    .map((p) => p.name);

/** Changes a delivery; a ready one is kept with the project from then on. */
export const setDeliveryEdit = defineEdit<{ delivery: Id; change: DeliveryChange }>({
  name: 'setDelivery',
  label: (a, p) => `Change the delivery ${deliveryOf(p, a.delivery)?.name ?? ''}`,
  touches: (a) => [a.delivery],
  run(project, { delivery, change }, ctx) {
    const before = found(project, delivery);
    const next = { ...before } as Record<string, unknown>;
    for (const [key, value] of Object.entries(change)) {
      const was = next[key];
      next[key] =
        typeof was === 'object' && !Array.isArray(was) && key !== 'options' ? { ...was, ...(value as object) } : value;
    }
    if (change.name !== undefined) next['name'] = freeName(change.name.trim() || before.name, names(project, before));
    const stored = project.deliveryProfiles.includes(before);
    if (!stored) next['id'] = ctx.newId();
    const parsed = deliveryProfileKind.schema.safeParse(next);
    if (!parsed.success) throw new EditError('delivery.field', { field: parsed.error.issues[0]!.path.join(' ') });
    // Groups that nothing was said about stay the very same, so that what shows them need not look again.
    const made = {
      ...(next as unknown as DeliveryProfile),
      ...Object.fromEntries(Object.keys(change).map((k) => [k, parsed.data[k as keyof DeliveryProfile]])),
      name: parsed.data.name,
    };
    const same = (p: DeliveryProfile): string => JSON.stringify(deliveryProfileKind.schema.parse({ ...p, id: 'same' }));
    if (same(made) === same(before)) return project;
    return {
      ...project,
      deliveryProfiles: stored ? replaceRecord(project.deliveryProfiles, made) : [...project.deliveryProfiles, made],
    };
  },
});

/** A delivery of one's own, as another is or as it was shared in a file. */
export const addDeliveryEdit = defineEdit<{ name: string; from: Id | DeliveryProfile }>({
  name: 'addDelivery',
  label: (a) => `New delivery ${a.name}`,
  touches: () => [],
  run(project, { name, from }, ctx) {
    const like = typeof from === 'string' ? found(project, from) : from;
    const made = { ...like, id: ctx.newId(), ready: null, name: freeName(name.trim() || like.name, names(project)) };
    return { ...project, deliveryProfiles: [...project.deliveryProfiles, made] };
  },
});

/** A ready delivery is again as it came; one of one's own goes to the bin. */
export const deleteDeliveryEdit = defineEdit<{ delivery: Id }>({
  name: 'deleteDelivery',
  label: (a, p) => `Delete the delivery ${deliveryOf(p, a.delivery)?.name ?? ''}`,
  touches: (a) => [a.delivery],
  run(project, { delivery }, ctx) {
    const profile = must(project.deliveryProfiles, delivery, 'delivery profile');
    return profile.ready === null
      ? recordToBin(project, 'delivery profile', delivery, ctx)
      : { ...project, deliveryProfiles: project.deliveryProfiles.filter((p) => p !== profile) };
  },
});
