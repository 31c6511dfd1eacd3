import {
  type Bone,
  type Clip,
  type Id,
  type Layer,
  type Part,
  type Placement,
  type Project,
  type Scene,
  type Shot,
  find,
  findIn,
  inColourway,
} from '@sphalerite/core/model';
import type { Palette } from '@sphalerite/core/palette';
import { type Ref, computed } from 'vue';
import {
  CHOSEN_KINDS,
  type Choice,
  type ChosenKind,
  EMPTY_VIEW,
  type ViewState,
  chosenAnew,
  inHand,
} from '../../storage/view-state';

/** What is chosen in a project, and how the project looks in the colourway in hand. */
export function useChoice(project: Ref<Project | null>, preview: Ref<Project | null>, view: Ref<ViewState>) {
  /** What is shown, in the palette's own colours. */
  const inPaletteColours = computed<Project | null>(() => preview.value ?? project.value);
  const shown = computed<Project | null>(
    () => inPaletteColours.value && inColourway(inPaletteColours.value, view.value.colourway),
  );
  /** The project in the active colourway. */
  const inActiveColourway = computed<Project | null>(
    () => project.value && inColourway(project.value, view.value.colourway),
  );
  const part = computed<Part | null>(() => find(project.value?.parts ?? [], inHand(view.value, 'part')) ?? null);
  const layer = computed<Layer | null>(
    () => find(part.value?.layers ?? [], view.value.layer) ?? part.value?.layers.at(-1) ?? null,
  );
  const bone = computed<Bone | null>(() => find(project.value?.rig.bones ?? [], inHand(view.value, 'bone')) ?? null);
  const clip = computed<Clip | null>(() => find(project.value?.clips ?? [], inHand(view.value, 'clip')) ?? null);
  const shot = computed<Shot | null>(() => find(project.value?.shots ?? [], inHand(view.value, 'shot')) ?? null);
  const scene = computed<Scene | null>(() => sceneOf(project.value, view.value));
  const placement = computed<Placement | null>(
    () => (scene.value && findIn(scene.value.placements, inHand(view.value, 'placement') ?? '')) ?? null,
  );
  const palette = computed<Palette | null>(() => {
    const p = project.value;
    return p ? (find(p.palettes, part.value?.palette ?? null) ?? p.palettes[0] ?? null) : null;
  });
  /** That palette as it looks in the active colourway. */
  const look = computed<Palette | null>(
    () => find(inActiveColourway.value?.palettes ?? [], palette.value?.id ?? null) ?? palette.value,
  );
  /** The ids of what is in hand. */
  const hand = computed(
    () =>
      Object.fromEntries(CHOSEN_KINDS.map((k) => [k, inHand(view.value, k)])) as Readonly<
        Record<ChosenKind, Id | null>
      >,
  );
  const choose = (change: Choice): void => {
    view.value = chosenAnew(view.value, change);
  };
  /**
   * Chooses as a click in a list does: this one alone, with Ctrl beside the others or no longer, with Shift all up to it.
   *
   * @param order – all of the list, as it is shown
   */
  function pick(kind: ChosenKind, id: Id, { ctrlKey, metaKey, shiftKey }: Keys, order: readonly Id[]): void {
    const before = view.value.chosen[kind],
      last = before.at(-1);
    if (shiftKey && last !== undefined) {
      const [a, b] = [order.indexOf(last), order.indexOf(id)].sort((x, y) => x - y) as [number, number];
      choose({ [kind]: [...order.slice(a, b + 1).filter((o) => o !== id), id] });
    } else if (!ctrlKey && !metaKey) choose({ [kind]: id });
    else if (before.includes(id)) choose({ [kind]: before.length > 1 ? before.filter((o) => o !== id) : before });
    else choose({ [kind]: [...before, id] });
    if (kind === 'part') choose({ layer: null });
  }
  return {
    inPaletteColours,
    shown,
    inActiveColourway,
    part,
    layer,
    bone,
    clip,
    shot,
    scene,
    placement,
    palette,
    look,
    hand,
    choose,
    pick,
  };
}
type Keys = Pick<MouseEvent, 'ctrlKey' | 'metaKey' | 'shiftKey'>;

/** The scene in hand: the first where none was chosen. */
const sceneOf = (p: Project | null, v: ViewState): Scene | null =>
  find(p?.scenes ?? [], inHand(v, 'scene')) ?? p?.scenes[0] ?? null;

/** Ids of a view that still exist in a project; a part is always chosen where there is one. */
export function repairedView(p: Project | null, v: ViewState): ViewState {
  if (!p) return EMPTY_VIEW;
  const keep = (kind: ChosenKind, list: readonly { id: Id }[], first = true): readonly Id[] => {
    const there = v.chosen[kind].filter((id) => find(list, id));
    return there.length === 0 && first && list.length > 0 ? [list[0]!.id] : there;
  };
  return {
    chosen: {
      part: keep('part', p.parts),
      bone: keep('bone', p.rig.bones, false),
      clip: keep('clip', p.clips),
      scene: keep('scene', p.scenes),
      placement: placed(p, v),
      lamp: keep('lamp', sceneOf(p, v)?.lamps ?? [], false),
      shot: keep('shot', p.shots),
    },
    layer: v.layer,
    colourway: find(p.colourways, v.colourway) ? v.colourway : null,
  };
}

const placed = (p: Project, v: ViewState): readonly Id[] => {
  const scene = v.chosen.placement.length > 0 ? sceneOf(p, v) : null;
  return scene ? v.chosen.placement.filter((id) => findIn(scene.placements, id)) : [];
};
