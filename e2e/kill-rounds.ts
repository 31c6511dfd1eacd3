import { createHash } from 'node:crypto';
import { existsSync, readFileSync, readdirSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { type BrowserContext, chromium } from '@playwright/test';
import { Bench, type ProjectJson } from './bench';
import { CHROMIUM, CHROMIUM_ARGS } from './launch';

/** A state the project was in, and when the hand had made it. */
interface Made {
  readonly at: number;
  readonly facts: string;
  readonly what: string;
}
/** What came of one round. */
export interface Round {
  readonly round: number;
  /** Changes that had been made when the process was killed, and how many of them were lost. */
  readonly made: number;
  readonly lost: number;
  /** Age of the oldest lost change at the kill, in milliseconds; 0 when none was. */
  readonly age: number;
}
/** Kept beside the profile, so that rounds can go on another day. */
interface Progress {
  seed: number;
  rounds: Round[];
  /** States that may be found at the next opening, the last of them as it was at the kill. */
  made: Made[];
  killed: number;
}

/** Cells of every layer, keys of every clip, parts, bones and the bin, in one word that does not depend on the order of fields. */
function factsOf(p: ProjectJson): string {
  const sorted = (v: unknown): unknown =>
    Array.isArray(v)
      ? v.map(sorted)
      : v && typeof v === 'object'
        ? Object.fromEntries(
            Object.entries(v)
              .sort(([a], [b]) => (a < b ? -1 : 1))
              .map(([k, o]) => [k, sorted(o)]),
          )
        : v;
  const { parts, rig, clips, palettes, bin } = p;
  return createHash('sha1')
    .update(JSON.stringify(sorted({ parts, rig, clips, palettes, bin })))
    .digest('hex');
}

/** The process of the browser that was started with this profile folder. */
function browserPid(folder: string): number {
  for (const pid of readdirSync('/proc').filter((d) => /^\d+$/.test(d))) {
    try {
      const line = readFileSync(`/proc/${pid}/cmdline`, 'utf8');
      if (line.includes(`--user-data-dir=${folder}`) && !line.includes('--type=')) return Number(pid);
    } catch {
      // That process is gone already.
    }
  }
  throw new Error('The browser that was started was not found.');
}

/** Small whole numbers from a seed, the same in every run. */
function dice(seed: number): (sides: number) => number {
  let s = seed >>> 0;
  return (sides) => {
    s = (Math.imul(s ^ (s >>> 15), 0x2c1b3c6d) + 0x9e3779b9) >>> 0;
    return ((s ^ (s >>> 12)) >>> 0) % sides;
  };
}

/** A hand that changes cubes, parts and keys by the keyboard, noting every state. */
class Hand {
  readonly made: Made[] = [];
  constructor(
    readonly bench: Bench,
    private readonly roll: (sides: number) => number,
  ) {}

  async note(what: string): Promise<void> {
    const at = Date.now();
    const facts = factsOf(await this.bench.project());
    if (facts !== this.made.at(-1)?.facts) this.made.push({ at, facts, what });
  }

  async cubes(times: number): Promise<void> {
    const { keyboard } = this.bench.page;
    await this.bench.step('Build');
    await this.bench.part(/^Coat/);
    await keyboard.press('2');
    await keyboard.press('k');
    for (let i = 0; i < times; i++) {
      await keyboard.press(['e', 'a'][this.roll(2)]!);
      const moves = ['PageUp', 'PageDown', 'ArrowRight', 'ArrowLeft', 'ArrowUp', 'ArrowDown'];
      for (let k = this.roll(4); k >= 0; k--) await keyboard.press(moves[this.roll(6)]!);
      await keyboard.press('Enter');
      await this.note('a cube');
    }
    await keyboard.press('Escape');
  }

  async parts(): Promise<void> {
    const parts = (await this.bench.project()).parts.length;
    await this.bench.step('Build');
    await this.bench.part(/^Satchel/);
    await this.bench.page.evaluate((id) => window.sphalerite.run(id), parts > 22 ? 'part.delete' : 'part.duplicate');
    await this.note(parts > 22 ? 'a part to the bin' : 'a part twice');
  }

  async keys(times: number): Promise<void> {
    const { page } = this.bench;
    await this.bench.step('Animate');
    await page.getByRole('treeitem', { name: /^Walk/ }).click();
    await page.getByLabel('Show lanes whose name holds').fill('chest');
    await page.locator('.lane .name').first().click();
    await page.getByLabel('Show lanes whose name holds').fill('');
    await page.locator('canvas').first().focus();
    for (let i = 0; i < times; i++) {
      for (let k = this.roll(5); k >= 0; k--) await page.keyboard.press('.');
      await page.keyboard.press('s');
      await this.note('a key');
    }
  }

  async anything(): Promise<void> {
    const what = this.roll(5);
    if (what < 3) await this.cubes(2 + this.roll(5));
    else if (what === 3) await this.parts();
    else await this.keys(1 + this.roll(3));
  }
}

/**
 * Opens the browser on one profile again and again, changes the project, kills the process at a random moment and looks at
 * the next opening which of the states that were made is found. A process that is killed proves that finished writes
 * outlive the program; it says nothing about a cut of power.
 *
 * @param folder – the profile; with the progress in it, rounds go on where they were left
 * @throws Error when what is found was never made, or cannot be opened
 */
export async function killRounds(
  folder: string,
  baseURL: string,
  rounds: number,
  seed: number,
  onRound: (r: Round) => void = () => undefined,
): Promise<Round[]> {
  const file = join(folder, 'kill-rounds.json');
  const progress: Progress = existsSync(file)
    ? (JSON.parse(readFileSync(file, 'utf8')) as Progress)
    : { seed, rounds: [], made: [], killed: 0 };
  const options = {
    executablePath: CHROMIUM,
    args: CHROMIUM_ARGS,
    viewport: { width: 1280, height: 800 },
    baseURL,
    reducedMotion: 'reduce',
  } as const;
  for (let done = progress.rounds.length; done <= rounds; done++) {
    const context: BrowserContext = await chromium.launchPersistentContext(folder, options);
    const bench = new Bench(context.pages()[0] ?? (await context.newPage()));
    if (progress.made.length === 0 && done === 0) await bench.firstVisit();
    else await bench.open();
    const hand = new Hand(bench, dice(progress.seed * 7919 + done));
    await hand.note('found');
    if (progress.made.length > 0) {
      const found = progress.made.findLastIndex((m) => m.facts === hand.made[0]!.facts);
      if (found < 0) throw new Error(`Round ${done}: what was found after the kill was never made.`);
      const lost = progress.made.slice(found + 1);
      const age = lost.length > 0 ? progress.killed - lost[0]!.at : 0;
      const round = { round: done, made: progress.made.length - 1, lost: lost.length, age };
      progress.rounds.push(round);
      onRound(round);
    }
    if (done < rounds) {
      for (let i = 0; i < 2; i++) await hand.anything();
      await bench.page.waitForFunction((ms) => performance.now() > ms, await soon(bench, seed + done));
      process.kill(browserPid(folder), 'SIGKILL');
      progress.killed = Date.now();
      progress.made = hand.made;
    }
    await context.close().catch(() => undefined);
    writeFileSync(file, JSON.stringify(progress));
  }
  return progress.rounds;
}

/** A moment up to three quarters of a second from now, on the page's clock. */
const soon = async (bench: Bench, seed: number): Promise<number> =>
  (await bench.page.evaluate(() => performance.now())) + dice(seed)(750);
