import type { Id } from './ids';
import {
  type DeliveryProfile,
  type DeliveryValues,
  PLAIN_DELIVERY,
  READY_DELIVERIES,
  type ReadyDelivery,
} from './kinds';
import type { Project } from './kinds';
import { find } from './records';

type Wishes = { readonly [K in keyof DeliveryValues]?: Partial<DeliveryValues[K]> } & {
  readonly formats: readonly string[];
  readonly options?: DeliveryProfile['options'];
};

function ready(id: ReadyDelivery, name: string, { formats, options = {}, ...wishes }: Wishes): DeliveryProfile {
  const values = Object.fromEntries(
    Object.entries(PLAIN_DELIVERY).map(([group, plain]) => [
      group,
      { ...plain, ...wishes[group as keyof DeliveryValues] },
    ]),
  ) as unknown as DeliveryValues;
  return { ...values, id, name, ready: id, formats, options, tiles: [] };
}

/** The profiles that the program brings along, by their ids. */
const READY: Readonly<Record<ReadyDelivery, DeliveryProfile>> = {
  phone: ready('phone', 'Phone', {
    formats: ['glb'],
    place: { origin: 'base' },
    mesh: { merge: 'all', weld: true },
    picture: { layout: 'atlas', padding: 1, most: 256 },
    collider: { shape: 'boxes', tolerance: 1.5 },
    budget: { triangles: 3000, bones: 32, draws: 40, texture: 256, kilobytes: 400 },
  }),
  desktop: ready('desktop', 'Desktop', {
    formats: ['glb', 'obj'],
    place: { origin: 'base' },
    picture: { layout: 'atlas', padding: 3, most: 2048 },
    collider: { shape: 'convex', tolerance: 1 },
    budget: { triangles: 20_000, bones: 128, draws: 120, texture: 2048, kilobytes: 8000 },
  }),
  headset: ready('headset', 'Headset', {
    formats: ['glb'],
    options: { glb: { packing: 'quantized' } },
    place: { origin: 'base' },
    mesh: { merge: 'all', weld: true, watertight: true },
    picture: { layout: 'atlas', padding: 3, most: 512 },
    collider: { shape: 'boxes', tolerance: 1 },
    budget: { triangles: 6000, bones: 64, draws: 30, texture: 512, kilobytes: 1000 },
  }),
  print: ready('print', 'Print', {
    formats: ['3mf', 'stl'],
    place: { origin: 'base' },
    mesh: { watertight: true },
    collider: { shape: 'none' },
    looks: { clips: false, colourways: 'none' },
    print: { height: 120, wall: 1.2 },
    budget: { kilobytes: 20_000 },
  }),
};

/** Every delivery there is: the ready ones, changed where the project has changed them, then one's own. */
export const deliveriesOf = (project: Project): readonly DeliveryProfile[] => [
  ...READY_DELIVERIES.map((r) => project.deliveryProfiles.find((p) => p.ready === r) ?? READY[r]),
  ...project.deliveryProfiles.filter((p) => p.ready === null),
];

/** The delivery under an id, that of a ready one included; undefined when there is none. */
export const deliveryOf = (project: Project, id: Id): DeliveryProfile | undefined =>
  find(project.deliveryProfiles, id) ??
  deliveriesOf(project).find((p) => p.ready !== null && (p.id === id || p.ready === id));

/** Whether a ready delivery is no longer as it came. */
export const isChanged = (profile: DeliveryProfile): boolean => profile.ready !== null && profile.id !== profile.ready;
