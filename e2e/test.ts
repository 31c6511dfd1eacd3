import { test as plain } from '@playwright/test';

export { expect } from '@playwright/test';

/** Tests of a first visit, with nothing in the browser yet: `test.use(FIRST_VISIT)`. */
export const FIRST_VISIT = { storageState: { cookies: [], origins: [] } };

/**
 * A test that begins from a stored profile (see profile.ts) and fails when any page of it throws what nobody caught, at
 * whatever moment.
 */
export const test = plain.extend<{ uncaught: string[] }>({
  uncaught: [
    async ({ context }, use) => {
      const errors: string[] = [];
      context.on('weberror', (e) =>
        errors.push(`${e.error().name} ${e.error().stack || e.error().message || String(e.error())}`),
      );
      await use(errors);
      plain.expect(errors, 'errors that no code of the page caught').toEqual([]);
    },
    { auto: true },
  ],
});
