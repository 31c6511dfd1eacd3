import { type Locator, type Page, expect } from '@playwright/test';

export type Triple = readonly [number, number, number];
export interface ProjectJson {
  readonly name: string;
  readonly parts: {
    id: string;
    name: string;
    side: string;
    hidden: boolean;
    twin: unknown;
    group: string | null;
    faceSlots: unknown;
    pivot: Triple;
    bounds: { min: Triple; size: Triple };
    layers: { id: string; grid: { cubes: number; hash: string } }[];
  }[];
  readonly assets: { name: string; project: { parts: unknown[] } }[];
  readonly rig: {
    bones: {
      id: string;
      name: string;
      side: string;
      parent: string | null;
      rest: { t: Triple; q: number[]; s: Triple };
    }[];
    mounts: { id: string; part: string; bone: string | null; t: Triple; s: Triple }[];
    alternateSets: { id: string; name: string; worn: string | null }[];
    constraints: { kind: string }[];
  };
  readonly clips: {
    id: string;
    name: string;
    length: number;
    loop: boolean;
    lanes: {
      bone: string;
      turn: { time: number; value: number[] }[];
      hinge: { time: number; value: number[] }[];
      scale: { time: number; value: number[] }[];
    }[];
    swaps: { alternateSet: string; keys: { time: number; mount: string | null }[] }[];
  }[];
  readonly shots: {
    id: string;
    name: string;
    colourway: string | null;
    camera: {
      kind: string;
      eye: number[];
      target: number[];
      focus: number | null;
      aperture: number;
      locked: boolean;
    };
    light: {
      sun: { azimuth: number; elevation: number };
      sky: { kind: string; picture: string | null };
      lamps: { changes: { lamp: string; by: number[] }[] };
    };
    output: { samples: number; size: [number, number] };
  }[];
  readonly palettes: { name: string; swatches: { byte: number; name: string; colour: string }[] }[];
  readonly colourways: { id: string; name: string; changes: { byte: number; look: { colour?: string } }[] }[];
  readonly blobs: { id: string }[];
  readonly bin: unknown[];
  readonly history: string[];
  readonly now: number;
}
interface Handle {
  project(): ProjectJson;
  cells(part: string, box: { min: Triple; size: Triple }): number[];
  screenOf(what: unknown): { x: number; y: number; occluded: boolean };
  run(id: string, args?: unknown): Promise<unknown>;
  commands(): { id: string; title: string; group: string; keys: string[]; screen: string; before: string[] }[];
  idle(): Promise<void>;
  state(): {
    saved: string;
    lastSaveBytes: number;
    frames: number;
    quads: number;
    textures: number;
    writable: boolean;
    view: Record<string, string | null>;
  };
}
declare global {
  interface Window {
    sphalerite: Handle;
  }
}

/** Takes an option of a list that opens. */
export async function choose(within: Page | Locator, label: string, option: string | RegExp): Promise<void> {
  const page = 'page' in within ? within.page() : within;
  await within
    .locator('.el-select')
    .filter({ has: page.getByRole('combobox', { name: label, exact: true }) })
    .click();
  await page.getByRole('option', { name: option, exact: true }).click();
}
/** Answers the dialog for files that a button opens. */
export async function giveFiles(button: Locator, files: Parameters<Locator['setInputFiles']>[0]): Promise<void> {
  const [asked] = await Promise.all([button.page().waitForEvent('filechooser'), button.click()]);
  await asked.setFiles(files);
}
/** A slider is moved by its keys, to the value nearest to what is meant. */
export async function slide(slider: Locator, to: number, key = 1): Promise<void> {
  const value = async (): Promise<number> => Number(await slider.getAttribute('aria-valuenow'));
  await slider.focus();
  for (let left = Math.abs(to - (await value())) / key; left >= 0.5; left--)
    await slider.press((await value()) < to ? 'ArrowRight' : 'ArrowLeft');
}

/** A hand on the bench: reads through the automation handle, works by pointer and keys alone. */
export class Bench {
  constructor(readonly page: Page) {}

  /** Where the guide plane stands, as its chip has it. */
  get guideDepth(): Locator {
    return this.page.getByLabel('Depth of the guide plane', { exact: true });
  }

  /** The demo on the bench, from the stored profile. */
  /** Drops a file on the page, or pastes it there, as a hand would. */
  async give(how: 'drop' | 'paste', name: string, bytes: Buffer): Promise<void> {
    await this.giveAll(how, [[name, bytes]]);
  }
  /** Several files at once. */
  async giveAll(how: 'drop' | 'paste', files: readonly (readonly [name: string, bytes: Buffer])[]): Promise<void> {
    await this.page.evaluate(
      ([way, list]) => {
        const data = new DataTransfer();
        for (const [file, bytes] of list) data.items.add(new File([Uint8Array.from(bytes)], file));
        const at = document.querySelector('canvas') ?? document.body;
        const more = { bubbles: true, cancelable: true };
        if (way === 'paste') document.body.dispatchEvent(new ClipboardEvent('paste', { ...more, clipboardData: data }));
        else
          for (const type of ['dragover', 'drop'])
            at.dispatchEvent(new DragEvent(type, { ...more, dataTransfer: data }));
      },
      [how, files.map(([name, bytes]) => [name, [...bytes]] as const)] as const,
    );
  }
  /** A file dropped at a point of the page. */
  async dropAt(p: { x: number; y: number }, name: string, bytes: Buffer): Promise<void> {
    await this.page.evaluate(
      ([at, file, list]) => {
        const data = new DataTransfer();
        data.items.add(new File([Uint8Array.from(list)], file));
        const more = { bubbles: true, cancelable: true, clientX: at.x, clientY: at.y, dataTransfer: data };
        for (const type of ['dragover', 'drop'])
          document.elementFromPoint(at.x, at.y)!.dispatchEvent(new DragEvent(type, more));
      },
      [p, name, [...bytes]] as const,
    );
  }
  async open(): Promise<void> {
    await this.page.goto('/project/demo-tamsin/build');
    await this.idle();
  }

  /** A first visit: from the scene that greets to Tamsin on the bench, the coach and its first card put away. */
  async firstVisit(): Promise<void> {
    await this.page.goto('/');
    await this.firstSteps();
    await this.page.getByTestId('coach').getByRole('button', { name: 'Skip' }).click();
    await this.page.getByRole('button', { name: 'Close this card for good' }).click();
    await this.idle();
  }

  /** The view drawn with a quarter of its pixels, as one wants it without a graphics card. */
  async drawQuick(): Promise<void> {
    const wide = (): Promise<number> =>
      this.page
        .locator('canvas')
        .first()
        .evaluate((c: HTMLCanvasElement) => c.width);
    const fine = await wide();
    while ((await wide()) > fine * 0.6) await this.page.keyboard.press('Control+Alt+q');
    await this.idle();
  }

  async firstSteps(): Promise<void> {
    await this.page.waitForURL(/\/stage$/);
    await this.page.getByTestId('coach').getByRole('button', { name: 'First steps' }).click();
    await this.page.waitForURL(/\/demo-tamsin\/build$/);
  }

  /** Lets the page draw if it wants to: some twenty of its frames go by. */
  framesPass = (): Promise<void> =>
    this.page.evaluate(
      () =>
        new Promise((done) => {
          let left = 20;
          const next = (): void => void (left-- > 0 ? requestAnimationFrame(next) : done());
          next();
        }),
    );

  /** Until nothing is under way; after a reload, until the workbench is there too. */
  idle = (): Promise<void> =>
    this.page.evaluate(async () => {
      while (!('sphalerite' in window)) await new Promise((r) => setTimeout(r, 20));
      await window.sphalerite.idle();
    });
  project = (): Promise<ProjectJson> => this.page.evaluate(() => window.sphalerite.project());
  state = (): Promise<ReturnType<Handle['state']>> => this.page.evaluate(() => window.sphalerite.state());
  cells = (part: string, min: Triple, size: Triple = [1, 1, 1]): Promise<number[]> =>
    this.page.evaluate(([p, a, b]) => window.sphalerite.cells(p, { min: a, size: b }), [part, min, size] as const);
  async cell(part: string, at: Triple): Promise<number> {
    return (await this.cells(part, at))[0]!;
  }
  async face(part: string, cell: Triple, face: Triple): Promise<{ x: number; y: number }> {
    const s = await this.page.evaluate((w) => window.sphalerite.screenOf(w), { part, cell, face });
    expect(s.occluded, `${part} ${cell.join()} is hidden`).toBe(false);
    return s;
  }
  joint = (bone: string): Promise<{ x: number; y: number }> =>
    this.page.evaluate((b) => window.sphalerite.screenOf({ bone: b }), bone);

  /** The screens that there are, as the job line shows them. */
  screens = (): Promise<string[]> =>
    this.page.getByRole('navigation', { name: 'Steps of the work' }).locator('.name').allTextContents();

  /** Types into a field by its name. */
  async set(label: string, value: string): Promise<void> {
    const field = this.page.getByLabel(label, { exact: true });
    await field.fill(value);
    await field.press('Enter');
  }
  async step(name: string): Promise<void> {
    await this.page
      .getByRole('navigation', { name: 'Steps of the work' })
      .getByRole('link', { name: new RegExp(`^${name}`) })
      .click();
    await this.page.waitForURL(new RegExp(`/${name.toLowerCase()}$`));
    await expect(this.page.getByRole('region', { name: 'Bench' })).toBeVisible();
    await this.idle();
  }
  async part(name: RegExp): Promise<void> {
    await this.page.getByRole('complementary', { name: 'Tray' }).getByRole('treeitem', { name }).first().click();
    await this.idle();
  }
  async swatch(name: string): Promise<number> {
    await this.page.getByRole('radio', { name, exact: true }).click();
    const p = await this.project();
    return p.palettes[0]!.swatches.find((s) => s.name === name)!.byte;
  }
  async click(at: { x: number; y: number }): Promise<void> {
    await this.page.mouse.move(at.x, at.y);
    await this.page.mouse.down();
    await this.page.mouse.up();
    await this.idle();
  }
  async drag(from: { x: number; y: number }, to: { x: number; y: number }, steps = 6): Promise<void> {
    await this.page.mouse.move(from.x, from.y);
    await this.page.mouse.down();
    await this.page.mouse.move(to.x, to.y, { steps });
    await this.page.mouse.up();
    await this.idle();
  }
  async total(): Promise<number> {
    return (await this.project()).parts.reduce((n, p) => n + p.layers.reduce((m, l) => m + l.grid.cubes, 0), 0);
  }
  /** Tamsin's legs without their controls, as before limbs were made of them. In Rig. */
  async dropControls(): Promise<void> {
    for (const name of ['Foot goal', 'Shin bend'])
      for (const side of ['left', 'right']) {
        await this.page.getByRole('treeitem', { name: new RegExp(`^${name}\\s*${side}`) }).click();
        await this.page.keyboard.press('Delete');
      }
    await this.idle();
  }
  /** A new empty project from the shelf. */
  async fresh(name: string, size: Triple, palette = 'Starter'): Promise<void> {
    await this.page.keyboard.press('Alt+0');
    await this.page.getByRole('button', { name: 'New project' }).click();
    await this.page.getByLabel('Name', { exact: true }).fill(name);
    for (const [i, label] of (['Width', 'Height', 'Depth'] as const).entries()) {
      await this.page.getByLabel(label).fill(String(size[i]));
      await this.page.getByLabel(label).press('Enter');
    }
    await this.page.getByRole('radio', { name: palette, exact: true }).click();
    await this.page.getByRole('button', { name: 'Put it on the bench' }).click();
    await this.page.waitForURL(/\/build$/);
    await expect(this.page.getByRole('heading', { level: 1 })).toContainText(name);
    await this.idle();
  }
}
