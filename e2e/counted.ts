import type { Locator } from '@playwright/test';
import { Artist } from './artist';
import type { Triple } from './bench';

/**
 * A hand that counts what it does: one click, one drag, one key chord or one filled field is an action. Typing a name is none,
 * nor is turning the camera.
 */
export class Counted extends Artist {
  actions = 0;

  async press(what: Locator): Promise<void> {
    await what.click();
    this.actions++;
    await this.idle();
  }
  async key(chord: string): Promise<void> {
    await this.page.keyboard.press(chord);
    this.actions++;
    await this.idle();
  }
  async at(place: { x: number; y: number }): Promise<void> {
    await this.click(place);
    this.actions++;
  }
  async pull(from: { x: number; y: number }, to: { x: number; y: number }): Promise<void> {
    await this.drag(from, to);
    this.actions++;
  }
  async field(label: string, value: number): Promise<void> {
    await this.number(label, value);
    this.actions++;
  }
  button = (name: string | RegExp): Locator => this.page.getByRole('button', { name, exact: typeof name === 'string' });

  /** A screen by its link on the job line. */
  async to(screen: string): Promise<void> {
    await this.step(screen);
    this.actions++;
  }
  /** A new empty project, its size given. */
  async begin(name: string, size: Triple): Promise<void> {
    await this.key('Alt+0');
    await this.press(this.button('New project'));
    await this.page.getByLabel('Name', { exact: true }).fill(name);
    for (const [i, label] of (['Width', 'Height', 'Depth'] as const).entries()) await this.field(label, size[i]!);
    await this.press(this.button('Put it on the bench'));
    await this.page.waitForURL(/\/build$/);
    await this.idle();
  }
  async tool(name: string): Promise<void> {
    await this.press(this.button('Add a tool'));
    await this.press(this.page.getByRole('menuitem', { name, exact: true }));
  }
  async colour(name: string): Promise<void> {
    await this.press(this.page.getByRole('radio', { name, exact: true }));
  }
  /** A solid by numbers: only what differs from what stands there is typed. */
  async typed(numbers: Partial<Record<'width' | 'height' | 'depth' | 'X' | 'Y' | 'Z', number>>): Promise<void> {
    await this.press(this.button('by numbers'));
    for (const [k, v] of Object.entries(numbers)) await this.field(`Shape ${k}`, v);
    await this.press(this.button('Set it'));
  }
}
