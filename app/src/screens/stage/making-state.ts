import { type Quat, QUAT_IDENTITY, type Vec3 } from '@sphalerite/core/math';
import { cellOfScene, find } from '@sphalerite/core/model';
import { addBlockEdit, addGroundEdit, addRoomEdit, newPartHereEdit } from '@sphalerite/core/project';
import { colourDistance } from '@sphalerite/core/palette';
import { type GroundLayer, ROOM, type Room } from '@sphalerite/core/sculpt';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef, watch } from 'vue';
import { onOtherProject } from '../../stores/project-settings';
import { useSession } from '../../stores/session';
import { openInPlace } from './open-in-place';
import { freeLayer, mustHaveScene } from './placing';

export const MAKINGS = ['part', 'block', 'room', 'ground'] as const;
export type Making = (typeof MAKINGS)[number];
export const MAKING_NAMES: Readonly<Record<Making, string>> = {
  part: 'Part',
  block: 'Block',
  room: 'Room',
  ground: 'Ground',
};

/** What is made where it shall stand: shown in the view while its form is open, set with a click or by the button. */
export const useMaking = defineStore('making', () => {
  const session = useSession();
  const kind = ref<Making | null>(null);
  const name = ref('');
  const place = shallowRef<{ readonly t: Vec3; readonly q: Quat }>({ t: [0, 0, 0], q: QUAT_IDENTITY });
  /** In metres. */
  const block = ref<Vec3>([1, 1, 1]);
  const room = ref<Room>(ROOM);
  const ground = ref<{ wide: number; deep: number; layers: readonly GroundLayer[] }>({
    wide: 160,
    deep: 120,
    layers: [],
  });
  const byte = ref(1);
  onOtherProject(() => (kind.value = null));

  const cell = computed(() => (session.project ? cellOfScene(session.project, session.scene?.id ?? null) : 1));
  /** Metres along a cube's edge. */
  const metres = computed(() => cell.value * (session.project?.metresPerUnit ?? 1));
  const palette = computed(() => session.palette ?? session.project?.palettes[0] ?? null);
  const cubes = (m: Vec3): Vec3 => m.map((v) => Math.max(1, Math.round(v / metres.value))) as unknown as Vec3;

  /** Whether rooms have been given colours of the palette. */
  let begun = false;
  /** The swatch that comes nearest to a colour. */
  function near(hex: string): number {
    const list = palette.value?.swatches ?? [];
    const by = list.map((s) => ({ byte: s.byte, d: s.emissive > 0 || s.helper ? 9 : colourDistance(s.colour, hex) }));
    return by.sort((a, b) => a.d - b.d)[0]?.byte ?? 1;
  }
  function begin(wanted: Making): void {
    if (!mustHaveScene()) return;
    const bytes = palette.value?.swatches.map((s) => s.byte) ?? [1];
    name.value = MAKING_NAMES[wanted];
    byte.value = bytes.includes(byte.value) && kind.value ? byte.value : near('#8d857a');
    if (!bytes.includes(room.value.wallByte) || !begun)
      room.value = { ...ROOM, wallByte: near('#b9aa94'), floorByte: near('#6f4a2f') };
    begun = true;
    if (ground.value.layers.some((l) => !bytes.includes(l.byte)) || ground.value.layers.length === 0)
      ground.value = {
        ...ground.value,
        layers: [
          { byte: near('#5a7a3c'), thick: 1 },
          { byte: near('#6f4a2f'), thick: 3 },
        ],
      };
    kind.value = wanted;
  }
  const common = () => ({
    ...{ scene: session.scene!.id, name: name.value, palette: palette.value!.id, cell: cell.value },
    place: { ...place.value, layer: freeLayer(session.scene!) },
  });
  /** Runs one of the edits, as something tried or as a step. */
  function withEdit<R>(use: {
    part: (e: typeof newPartHereEdit, a: Parameters<(typeof newPartHereEdit)['run']>[1]) => R;
    block: (e: typeof addBlockEdit, a: Parameters<(typeof addBlockEdit)['run']>[1]) => R;
    room: (e: typeof addRoomEdit, a: Parameters<(typeof addRoomEdit)['run']>[1]) => R;
    ground: (e: typeof addGroundEdit, a: Parameters<(typeof addGroundEdit)['run']>[1]) => R;
  }): R | null {
    const base = common();
    switch (kind.value) {
      case null:
        return null;
      case 'part':
        return use.part(newPartHereEdit, { ...base, size: cubes(block.value) });
      case 'block':
        return use.block(addBlockEdit, { ...base, size: cubes(block.value), byte: byte.value });
      case 'room':
        return use.room(addRoomEdit, { ...base, room: room.value });
      case 'ground':
        return use.ground(addGroundEdit, { ...base, ...ground.value });
    }
  }
  /** Shows it where it would stand. */
  function show(quiet = true): void {
    if (!kind.value || !session.scene || !palette.value) return;
    const tried = <A>(e: Parameters<typeof session.tryEdit<A>>[0], a: A) => session.tryEdit(e, a, quiet);
    session.preview = withEdit({ part: tried, block: tried, room: tried, ground: tried });
  }
  watch([kind, name, place, block, room, ground, byte], () => (kind.value ? show() : undefined));

  function end(): void {
    kind.value = null;
    session.preview = null;
  }
  /** Makes it; a part opens in its place. */
  function set(): void {
    const made = kind.value,
      scene = session.scene!.id;
    const last = (p: NonNullable<typeof session.project>) => ({
      placement: find(p.scenes, scene)!.placements.flat().at(-1)!.id,
    });
    const done = <A>(e: Parameters<typeof session.apply<A>>[0], a: A) => session.apply(e, a, last);
    const well = withEdit({ part: done, block: done, room: done, ground: done });
    if (!well) return;
    end();
    const p = session.placement;
    if (made === 'part' && p?.shows.kind === 'part')
      openInPlace({ path: [p.id], part: p.shows.part, mount: null, copy: 0 });
  }
  return { kind, name, place, block, room, ground, byte, cell, metres, palette, begin, show, end, set };
});
