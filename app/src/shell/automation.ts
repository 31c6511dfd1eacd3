import { allThere } from '../components/later';
import {
  type Box,
  type Vec3,
  invertMat,
  transformDirection,
  transformPoint,
  FNV_START,
  fnv1a,
} from '@sphalerite/core/math';
import { composite, must, projectToJson } from '@sphalerite/core/model';
import { worldMatrices } from '@sphalerite/core/rig';
import { rayWalk } from '@sphalerite/core/voxel';
import { nextTick } from 'vue';
import { settingsPending } from '../storage/settings-store';
import { useSession } from '../stores/session';
import { useView } from '../stores/view';
import { busyJobs } from '../workers/pool';
import { allCommands, keysFor, placeOf, runCommand } from '../stores/commands';

/**
 * `window.sphalerite`: for tests and for artists who script. Described in docs/automation.md; it reads the
 * project, says where things stand on the page, and runs any command by its id.
 */
export interface Automation {
  /** The project as JSON; each layer's cells as a count and a hash. */
  project(): unknown;
  /** Palette bytes of a box of a part (by id or name), x fastest, then y, then z. */
  cells(part: string, box: Box): number[];
  /** CSS pixels of the middle of a cell's face, of a bone's joint, or of a place in the world, and whether something stands before it. */
  screenOf(what: { part: string; cell: Vec3; face?: Vec3 } | { bone: string } | { place: Vec3 }): {
    x: number;
    y: number;
    occluded: boolean;
  };
  run(id: string, args?: unknown): Promise<unknown>;
  /** Commands of the screen, with their shortcuts as they are now. */
  commands(): {
    id: string;
    title: string;
    group: string;
    keys: readonly string[];
    screen: string;
    before: readonly string[];
  }[];
  /** Resolves when no job runs, no frame waits and everything is saved. */
  idle(): Promise<void>;
  /** What is selected, and how the last save went. */
  state(): {
    view: unknown;
    saved: string;
    lastSaveBytes: number;
    frames: number;
    quads: number;
    textures: number;
    writable: boolean;
  };
}

export function installAutomation(): void {
  const session = useSession();
  const view = useView();
  const project = () => {
    if (!session.project) throw new Error('No project is open.');
    return session.project;
  };
  const partOf = (key: string) =>
    project().parts.find((p) => p.id === key || p.name === key || `${p.name} ${p.side}` === key) ??
    must(project().parts, key, 'part');
  const handle: Automation = {
    project() {
      return {
        ...projectToJson(project(), {
          cells: (grid) => ({ bounds: grid.bounds, cubes: grid.count, hash: hashCells(grid) }),
          bytes: (bytes) => bytes.byteLength,
        }),
        history: session.history?.entries.map((e) => e.label) ?? [],
        now: session.history?.now ?? -1,
      };
    },
    cells: (part, box) => [...composite(partOf(part)).readBox(box)],
    screenOf(what) {
      const v = view.viewport;
      if (!v) throw new Error('There is no view on this screen.');
      const pose = useView().pose;
      if ('place' in what) return { ...v.screenOf(what.place), occluded: false };
      if ('bone' in what) {
        const b = project().rig.bones.find(
          (o) => o.id === what.bone || o.name === what.bone || `${o.name} ${o.side}` === what.bone,
        );
        if (!b) throw new Error(`There is no bone "${what.bone}".`);
        const m = worldMatrices(project().rig, pose).get(b.id)!;
        const { x, y } = v.screenOf([m[12]!, m[13]!, m[14]!]);
        return { x, y, occluded: false };
      }
      const part = partOf(what.part);
      const own = v.list.find((i) => i.source.part === part.id);
      if (!own) throw new Error(`"${what.part}" is hidden or not placed.`);
      const f = what.face ?? [0, 0, 0];
      const at = transformPoint(own.matrix, [
        what.cell[0] + 0.5 + f[0] / 2,
        what.cell[1] + 0.5 + f[1] / 2,
        what.cell[2] + 0.5 + f[2] / 2,
      ]);
      const { x, y } = v.screenOf(at);
      const ray = v.rayAt(x, y);
      const inverse = invertMat(own.matrix);
      const hit = rayWalk(composite(part), transformPoint(inverse, ray.origin), transformDirection(inverse, ray.dir));
      const occluded =
        hit !== null && hit.cell.some((c, i) => c !== what.cell[i]) && composite(part).get(...what.cell) !== 0;
      return { x, y, occluded };
    },
    run: (id, args) => runCommand(id, args),
    commands: () =>
      allCommands.value.map((c) => ({
        id: c.id,
        title: c.title,
        group: c.group,
        keys: keysFor(c),
        screen: placeOf(c.id),
        before: c.before ?? [],
      })),
    async idle() {
      for (let calm = 0; calm < 3;) {
        await nextTick();
        // A page that is still loading shows no project yet, or the screen before the one it is going to.
        const [, page, , step] = location.pathname.split('/');
        const loading = page === 'project' && (!session.project || (step !== undefined && view.screen !== step));
        const busy =
          loading ||
          !allThere() ||
          busyJobs() > 0 ||
          settingsPending() ||
          !(view.viewport?.still ?? true) ||
          !session.idle();
        if (!session.idle()) await session.flush();
        calm = busy ? 0 : calm + 1;
        await new Promise((r) => setTimeout(r, 16));
      }
    },
    state: () => ({
      view: {
        ...session.hand,
        layer: session.view.layer,
        colourway: session.view.colourway,
        chosen: session.view.chosen,
      },
      saved: session.saveState,
      lastSaveBytes: session.lastSaveBytes(),
      frames: view.viewport?.frames ?? 0,
      quads: view.viewport?.quads ?? 0,
      textures: view.viewport?.textures ?? 0,
      writable: session.writable,
    }),
  };
  (window as unknown as { sphalerite: Automation }).sphalerite = handle;
}

/** FNV-1a over position and value of every filled cell, in reading order. */
function hashCells(grid: { forEach(visit: (x: number, y: number, z: number, v: number) => void): void }): string {
  let h = FNV_START;
  grid.forEach((x, y, z, v) => {
    for (const n of [x, y, z, v]) h = fnv1a(h, n & 0xffff);
  });
  return (h >>> 0).toString(16);
}
