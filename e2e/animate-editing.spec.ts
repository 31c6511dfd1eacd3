import { readFileSync } from 'node:fs';
import { mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect, test } from './test';
import { Bench, type ProjectJson } from './bench';
import { glbJson } from './glb-readers';

interface Key {
  readonly time: number;
  readonly ease: string;
  readonly curve?: readonly number[];
  readonly value: readonly number[];
}
interface Lane {
  readonly bone: string;
  readonly turn: readonly Key[];
  readonly move: readonly Key[];
}
const lanesOf = (p: ProjectJson, clip: string): readonly Lane[] =>
  p.clips.find((c) => c.name === clip)!.lanes as unknown as readonly Lane[];
const laneOf = (p: ProjectJson, clip: string, bone: string): Lane =>
  lanesOf(p, clip).find(
    (l) => l.bone === p.rig.bones.find((b) => b.name === bone || `${b.name} ${b.side}` === bone)!.id,
  )!;
const frames = (keys: readonly Key[]): number[] => keys.map((k) => k.time / 50);

/** A hand that animates: frames by keys, bones by their lanes or joints, turns by numbers. */
class Animator extends Bench {
  async clip(name: string): Promise<void> {
    await this.page
      .getByRole('complementary', { name: 'Tray' })
      .getByRole('treeitem', { name: new RegExp(`^${name}\\b`) })
      .first()
      .click();
    await this.idle();
  }
  async frame(n: number): Promise<void> {
    await this.page.keyboard.press('<');
    for (let i = 0; i < n; i++) await this.page.keyboard.press('.');
  }
  async turn(bone: string, x: number, y = 0, z = 0): Promise<void> {
    // A bone is found by its name: in a bent figure rings lie over joints.
    await this.page.getByLabel('Show lanes whose name holds').fill(bone);
    await this.page.locator('.lane .name', { hasText: new RegExp(`^${bone}$`) }).click();
    await this.page.getByLabel('Show lanes whose name holds').fill('');
    for (const [axis, v] of [
      ['X', x],
      ['Y', y],
      ['Z', z],
    ] as const) {
      const field = this.page.getByLabel(`Turn ${axis}`);
      if (Math.abs(Number(await field.inputValue()) - v) < 0.05) continue;
      await field.fill(String(v));
      await field.press('Enter');
    }
    // Back from the field, so that keys are heard.
    await this.page.locator('canvas').first().focus();
    await this.idle();
  }
}

test.describe('Animating', () => {
  test('Tamsin bows: six poses, two holds, a mirrored return; every step of a mixed session is undone to exactly what it was', async ({
    page,
  }) => {
    const b = new Animator(page);
    await b.open();
    const plain = (p: ProjectJson): string => JSON.stringify({ ...p, history: 0, now: 0 });
    const states: { now: number; text: string }[] = [];
    const note = async (): Promise<void> => {
      await b.idle();
      const p = await b.project();
      states.push({ now: p.now, text: plain(p) });
    };
    await note();
    // A cube, a bone at rest, then keys.
    await b.part(/^Coat\b/);
    await b.click(await b.face('Coat', [-3, 16, 3], [0, 0, 1]));
    await note();
    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Satchel/ }).click();
    await page.getByLabel('Turn Z', { exact: true }).fill('5');
    await page.getByLabel('Turn Z', { exact: true }).press('Enter');
    await note();
    await b.step('Animate');
    await page.getByRole('button', { name: 'New clip' }).click();
    await note();
    await page.getByRole('button', { name: 'Name of the clip: Clip' }).click();
    const name = page.getByLabel('Name of the clip');
    await name.fill('Bow');
    await name.press('Enter');
    await note();
    await page.getByLabel('Frames', { exact: true }).fill('48');
    await page.getByLabel('Frames', { exact: true }).press('Enter');
    await note();

    // 1 upright, 2 a little back, 3 down with the right arm out and the head turned.
    await b.turn('Head', 1);
    await b.frame(5);
    await b.turn('Chest', -6);
    await b.frame(12);
    await b.turn('Chest', 34, 6, 0);
    await b.turn('Head', 16, -12, 0);
    await b.turn('Upper arm right', 20, 0, -42);
    const bow = await b.project();
    // The first hold: the keys of this frame again at 20.
    await page.keyboard.press('Control+c');
    await b.frame(20);
    await page.keyboard.press('Control+v');
    await b.idle();
    const held = await b.project();
    for (const bone of ['Chest', 'Head', 'Upper arm right']) {
      const keys = laneOf(held, 'Bow', bone).turn;
      expect(keys.find((k) => k.time === 1000)!.value, bone).toEqual(keys.find((k) => k.time === 600)!.value);
    }
    // 4: the pose on the shelf struck as its mirror image, which is held too.
    await b.frame(12);
    await page.keyboard.press('Shift+S');
    await b.frame(28);
    await page.getByRole('button', { name: 'Strike Pose 1 mirrored' }).click();
    await b.idle();
    await page.locator('canvas').first().focus();
    await page.keyboard.press('Control+c');
    await b.frame(34);
    await page.keyboard.press('Control+v');
    await b.idle();
    const mirrored = await b.project();
    const right = laneOf(bow, 'Bow', 'Upper arm right').turn.find((k) => k.time === 600)!.value,
      left = laneOf(mirrored, 'Bow', 'Upper arm left').turn;
    expect(frames(left)).toEqual([28, 34]);
    for (const k of left)
      expect(k.value).toEqual([right[0], -right[1]!, -right[2]!, right[3]].map((v) => expect.closeTo(v!, 9)));
    // 5 nearly up, 6 upright, both arms down.
    await b.frame(42);
    await b.turn('Chest', -3);
    await b.frame(48);
    await page.keyboard.press('Shift+R');
    await b.idle();
    await b.frame(0);
    await page.keyboard.press('Shift+R');
    await b.idle();
    const done = await b.project();
    expect(frames(laneOf(done, 'Bow', 'Chest').turn)).toEqual([0, 5, 12, 20, 28, 34, 42, 48]);
    await page.getByRole('radiogroup', { name: 'What the bench shows' }).getByRole('radio', { name: 'Ground' }).click();
    await expect(page.getByRole('region', { name: 'Contact of this clip' })).toContainText('The loop closes.');

    // Back through all of it: what stands in the history stands on the bench.
    let at = done.now;
    for (const state of states.toReversed()) {
      for (; at > state.now; at--) await page.keyboard.press('Control+z');
      await b.idle();
      const p = await b.project();
      expect([p.now, plain(p) === state.text]).toEqual([state.now, true]);
    }
    for (; at < done.now; at++) await page.keyboard.press('Control+y');
    await b.idle();
    const again = await b.project();
    expect([again.now, plain(again) === plain(done)]).toEqual([done.now, true]);
  });

  test('keys in hundreds: chosen by box or all, moved, scaled about the frame, time put in and taken out, lanes found by name', async ({
    page,
  }) => {
    const b = new Animator(page);
    await b.open();
    await b.step('Animate');
    await b.clip('Walk');
    const before = await b.project(),
      count = (p: ProjectJson): number => lanesOf(p, 'Walk').reduce((n, l) => n + l.turn.length + l.move.length, 0);
    await page.locator('canvas').first().focus();
    await page.keyboard.press('Control+a');
    await expect(page.getByRole('contentinfo', { name: 'Readout' }).or(page.locator('.readout'))).toContainText(
      `selected ${count(before)}`,
    );
    await b.frame(0);
    const scale = page.getByLabel('Scale in time about this frame');
    await scale.fill('50');
    await scale.press('Enter');
    await b.idle();
    const halved = await b.project();
    for (const lane of lanesOf(before, 'Walk'))
      expect(
        lanesOf(halved, 'Walk')
          .find((l) => l.bone === lane.bone)!
          .turn.map((k) => k.time),
        // On whole frames of 50 ticks; keys that meet there are one.
      ).toEqual([...new Set(lane.turn.map((k) => Math.round(k.time / 2 / 50) * 50))]);
    await page.locator('canvas').first().focus();
    await page.keyboard.press('Control+z');
    await b.idle();
    expect((await b.project()).clips).toEqual(before.clips);

    // A frame put in after 12 and taken out again.
    await b.frame(12);
    await page.keyboard.press('>');
    await b.idle();
    const longer = await b.project();
    expect(longer.clips.find((c) => c.name === 'Walk')!.length).toBe(1250);
    expect(frames(laneOf(longer, 'Walk', 'Hips').turn)).toEqual([0, 6, 12, 19, 25]);
    await page.keyboard.press('Shift+Backspace');
    await b.idle();
    expect((await b.project()).clips).toEqual(before.clips);

    // Lanes by name; a box over both feet takes their keys alone; a drag moves them together.
    await page.getByLabel('Show lanes whose name holds').fill('foot goal');
    await expect(page.locator('.lane')).toHaveCount(2);
    const [first, last] = [
      (await page.locator('.lane').nth(0).boundingBox())!,
      (await page.locator('.lane').nth(1).boundingBox())!,
    ];
    const key = (await page.getByRole('button', { name: 'Key of Foot goal left at frame 14' }).boundingBox())!,
      end = (await page.getByRole('button', { name: 'Key of Foot goal left at frame 22' }).boundingBox())!;
    await b.drag({ x: key.x - 12, y: first.y + 2 }, { x: end.x + 18, y: last.y + last.height + 4 });
    const taken = page.locator('.key.on');
    expect(await taken.count()).toBe(3);
    await page.keyboard.press('Delete');
    await b.idle();
    expect(frames(laneOf(await b.project(), 'Walk', 'Foot goal left').move).filter((f) => f >= 14 && f <= 22)).toEqual(
      [],
    );
    expect(laneOf(await b.project(), 'Walk', 'Hips')).toEqual(laneOf(before, 'Walk', 'Hips'));
  });

  test('curves: a handle bends the way between two keys and a key is dragged in value; half a walk makes the other half; a clip comes from another figure', async ({
    page,
  }) => {
    const b = new Animator(page);
    await b.open();
    await b.step('Animate');
    await b.clip('Walk');
    await page.locator('.lane .name', { hasText: /^Chest$/ }).click();
    await page.locator('canvas').first().focus();
    await page.keyboard.press('2');
    await b.frame(3);
    await b.idle();
    const handle = (await page.getByRole('button', { name: 'Handle out of the key' }).boundingBox())!;
    await b.drag({ x: handle.x + 6, y: handle.y + 6 }, { x: handle.x + 60, y: handle.y - 24 });
    const chest = laneOf(await b.project(), 'Walk', 'Chest').turn;
    expect([chest[0]!.ease, chest[1]!.ease]).toEqual(['curve', 'ease']);
    expect(chest[0]!.curve![0]).toBeGreaterThan(0.42);
    const dot = (await page.getByRole('button', { name: 'Y at frame 12' }).boundingBox())!;
    await b.drag({ x: dot.x + 4, y: dot.y + 4 }, { x: dot.x + 4, y: dot.y + 34 });
    const lower = laneOf(await b.project(), 'Walk', 'Chest').turn.find((k) => k.time === 600)!.value;
    expect(lower[1]).toBeLessThan(chest[1]!.value[1]! - 0.02);

    await page.getByRole('button', { name: 'Half a walk makes the other half' }).click();
    await b.idle();
    const walk = await b.project();
    const [one, other] = [laneOf(walk, 'Walk', 'Foot goal left').move, laneOf(walk, 'Walk', 'Foot goal right').move];
    expect(frames(one).filter((f) => f >= 12 && f < 24)).toEqual(
      frames(other)
        .filter((f) => f < 12)
        .map((f) => f + 12),
    );

    await page.getByRole('button', { name: 'From another figure…' }).click();
    await page.getByRole('dialog').getByRole('button', { name: 'Biped' }).click();
    await expect(page.getByRole('dialog').getByRole('listitem').filter({ hasText: 'Walk' })).toContainText(
      'without Hand goal left',
    );
    await page.getByRole('dialog').getByRole('button', { name: 'Bring in Walk' }).click();
    await expect(page.getByRole('dialog')).toHaveCount(0);
    await b.idle();
    const brought = await b.project();
    expect(brought.clips.at(-1)!.name).toBe('Walk 2');
    // Tamsin is 24 high to the joint of her head, the biped 24: strides go by the whole figures, which their joints say.
    const stride = (p: ProjectJson, clip: string): number =>
      Math.max(...laneOf(p, clip, 'Foot goal left').move.map((k) => k.value[2]!));
    expect(stride(brought, 'Walk 2')).toBeGreaterThan(2);
    expect(laneOf(brought, 'Walk 2', 'Chest').turn.length).toBe(3);
  });

  test('contact is measured and leads to the frame; a slot is swapped by keys, and ships as stepped sizes; nothing is keyed while auto-key is off', async ({
    page,
  }) => {
    const b = new Animator(page);
    await b.open();
    await b.step('Rig');
    await page.getByRole('treeitem', { name: /^Satchel/ }).click();
    await page.getByRole('button', { name: 'may come and go' }).click();
    await b.idle();
    await b.step('Animate');
    await b.clip('Walk');
    await b.frame(12);
    await page
      .getByRole('region', { name: 'Worn from here on' })
      .getByRole('radio', { name: 'Satchel: nothing' })
      .click();
    await b.idle();
    await expect(page.getByRole('button', { name: 'Satchel wears nothing from frame 12' })).toHaveCount(1);

    // The hips sink at frame 6: the boots stay, being steered; the coat tails do not reach the ground.
    await page.locator('canvas').first().focus();
    await page.keyboard.press('3');
    const findings = page.getByRole('region', { name: 'Contact of this clip' });
    await expect(findings).toContainText('Nothing goes through the ground.');
    await expect(findings).toContainText('No standing sole slides.');
    await page.keyboard.press('1');
    await page.getByLabel('Show lanes whose name holds').fill('foot goal left');
    await page.locator('.lane .name').first().click();
    await page.getByLabel('Show lanes whose name holds').fill('');
    await page.locator('canvas').first().focus();
    await b.frame(6);
    // The goal stands 3 above the ground while the boot stands on it.
    const y = page.getByLabel('Place Y');
    await y.fill('1.5');
    await y.press('Enter');
    await b.idle();
    await page.getByRole('radiogroup', { name: 'What the bench shows' }).getByRole('radio', { name: 'Ground' }).click();
    // As far as the leg reaches.
    await expect(findings).toContainText(/Boot left is 0\.\d\d cubes through the ground/);
    await page.getByRole('button', { name: 'Check all' }).click();
    const all = page.getByRole('region', { name: 'All clips' });
    await expect(all.getByRole('listitem')).toHaveCount(4);
    await expect(all.getByRole('listitem').filter({ hasText: 'Walk' })).toContainText(/0\.[1-9]\d · /);
    await b.frame(0);
    const link = findings.getByRole('button', { name: /^frame \d/ }).first(),
      text = (await link.textContent())!;
    await link.click();
    await expect(page.getByTestId('frame')).toContainText(`${text} of 24`);

    await page.locator('canvas').first().focus();
    const history = (await b.project()).history;
    await page.keyboard.press('u');
    await page.keyboard.press('1');
    await b.turn('Head', 25);
    await expect(page.locator('.chip', { hasText: 'a bone tried out: S keys' })).toBeVisible();
    expect((await b.project()).history).toEqual(history);
    await page.keyboard.press('s');
    await b.idle();
    expect((await b.project()).history.slice(history.length)).toEqual(['Key Head']);

    await b.step('Ship');
    const [download] = await Promise.all([
      page.waitForEvent('download'),
      page.getByRole('button', { name: 'Ship it' }).click(),
    ]);
    const file = join(mkdtempSync(join(tmpdir(), 'glb-')), 'tamsin.glb');
    await download.saveAs(file);
    const json = glbJson(readFileSync(file)) as unknown as {
      nodes: { name: string; mesh?: number }[];
      animations: {
        name: string;
        channels: { sampler: number; target: { node: number; path: string } }[];
        samplers: { interpolation: string }[];
      }[];
    };
    const walk = json.animations.find((a) => a.name === 'Walk')!;
    const swap = walk.channels.filter((c) => c.target.path === 'scale');
    expect(
      swap.map((c) => [
        json.nodes[c.target.node]!.name,
        json.nodes[c.target.node]!.mesh !== undefined,
        walk.samplers[c.sampler]!.interpolation,
      ]),
    ).toEqual([['Satchel', true, 'STEP']]);
  });
});
