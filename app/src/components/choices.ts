import type { Swatch } from '@sphalerite/core/palette';
import type { Component } from 'vue';

/** One of what can be chosen in a `ChoiceField` or `SelectField`. */
export interface Choice<T> {
  readonly value: T;
  readonly text?: string | undefined;
  readonly icon?: Component;
  /** A colour shown before the text. */
  readonly colour?: string;
  /** Its full name, where the text is short or an icon stands for it. */
  readonly name?: string;
  readonly tip?: string;
  readonly disabled?: boolean;
  /** In a list: those of one group that follow each other stand under its name. */
  readonly group?: string;
}

/** Values that can be chosen, shown as they are or by a word for each. */
export const choices = <T extends string | number>(
  values: readonly T[],
  text: (value: T) => string = String,
): Choice<T>[] => values.map((value) => ({ value, text: text(value) }));

/** Records that can be chosen by their id. */
export const records = <T extends { readonly id: string }>(
  list: readonly T[],
  text: (record: T) => string,
): Choice<string>[] => list.map((r) => ({ value: r.id, text: text(r) }));

/** Choices that follow each other, in the order of the groups. */
export const group = <T>(name: string, list: readonly Choice<T>[]): Choice<T>[] =>
  list.map((c) => ({ ...c, group: name }));

/** Swatches that can be chosen by their byte. */
export const swatchChoices = (swatches: readonly Swatch[]): (Choice<number> & { readonly text: string })[] =>
  swatches.map((s) => ({ value: s.byte, text: s.name || `swatch ${s.byte}`, colour: s.colour }));
