import * as z from 'zod';
import { PROFILE_ENDING, readProfile } from '../../delivery/profile-file';
import { type Importer, oneEach } from '../../importer';

/** A delivery profile that somebody shared. */
export const deliveryImporter: Importer<object> = {
  id: 'delivery',
  does: 'Keep it as a delivery of this project',
  extensions: [PROFILE_ENDING],
  needs: 'project',
  options: z.strictObject({}),
  accepts: (_head, name) => name.toLowerCase().endsWith(PROFILE_ENDING),
  inspect: oneEach,
  run({ title, files }) {
    const from = readProfile(title, files[0]!.bytes);
    return Promise.resolve({
      brought: { kind: 'edit', edit: 'addDelivery', args: { name: from.name, from } },
      notes: [],
    });
  },
};
