import {
  type Bone,
  type Clip,
  type Layer,
  type Part,
  type Project,
  type Shot,
  find,
  inColourway,
} from '@sphalerite/core/model';
import type { Palette } from '@sphalerite/core/palette';
import { type Ref, computed } from 'vue';
import { EMPTY_VIEW, type ViewState } from '../../storage/view-state';

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
  const part = computed<Part | null>(() => find(project.value?.parts ?? [], view.value.part) ?? null);
  const layer = computed<Layer | null>(
    () => find(part.value?.layers ?? [], view.value.layer) ?? part.value?.layers.at(-1) ?? null,
  );
  const bone = computed<Bone | null>(() => find(project.value?.rig.bones ?? [], view.value.bone) ?? null);
  const clip = computed<Clip | null>(() => find(project.value?.clips ?? [], view.value.clip) ?? null);
  const shot = computed<Shot | null>(() => find(project.value?.shots ?? [], view.value.shot) ?? null);
  const palette = computed<Palette | null>(() => {
    const p = project.value;
    return p ? (find(p.palettes, part.value?.palette ?? null) ?? p.palettes[0] ?? null) : null;
  });
  /** That palette as it looks in the active colourway. */
  const look = computed<Palette | null>(
    () => find(inActiveColourway.value?.palettes ?? [], palette.value?.id ?? null) ?? palette.value,
  );
  const choose = (change: Partial<ViewState>): void => {
    view.value = { ...view.value, ...change };
  };
  return { inPaletteColours, shown, inActiveColourway, part, layer, bone, clip, shot, palette, look, choose };
}

/** Ids of a view that still exist in a project; a part is always chosen where there is one. */
export function repairedView(p: Project | null, v: ViewState): ViewState {
  if (!p) return EMPTY_VIEW;
  const keep = (list: readonly { id: string }[], id: string | null, first = true): string | null =>
    find(list, id)?.id ?? (first ? (list[0]?.id ?? null) : null);
  return {
    part: keep(p.parts, v.part),
    layer: v.layer,
    bone: keep(p.rig.bones, v.bone, false),
    clip: keep(p.clips, v.clip),
    shot: keep(p.shots, v.shot),
    colourway: keep(p.colourways, v.colourway ?? null, false),
  };
}
