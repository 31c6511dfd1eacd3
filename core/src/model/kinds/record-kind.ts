import type * as z from 'zod';

export type LooseJson = Record<string, unknown>;

/** A file that stood in an older form of a record, and is a blob of the project from then on. */
export interface FoundBlob {
  readonly id: string;
  readonly type: string;
  readonly bytes: Uint8Array<ArrayBuffer>;
}
export type Found = (blob: FoundBlob) => void;

/**
 * One step a version: entry n turns a record of format n into one of n + 1. Never edited once released. What came with a
 * version is put under what a record has, so that rows which did not say their version, up to format 5, can be taken for
 * the oldest. Files that stood in the record are handed to `found`.
 */
export type Upgrades = Readonly<Record<number, (json: LooseJson, found: Found) => LooseJson>>;

/**
 * Everything that is known of one kind of record. The project's JSON, the check of what names what, stored rows, the sweep,
 * the bin, workers, bringing in and the table in docs/formats.md are derived from it.
 *
 * @typeParam Name – as others name it, and as sentences call it
 * @typeParam List – the list of the project that it stands in; null for what stands in no list
 * @typeParam R – a record in memory
 */
export interface RecordKind<Name extends string = string, List extends string | null = string | null, R = unknown> {
  readonly name: Name;
  readonly plural: string;
  readonly list: List;
  /** How many the list may hold. */
  readonly most: number;
  /** With marks for ids, for what it names and for what is carried apart from JSON. */
  readonly schema: z.ZodType<R>;
  /** The format it came with. */
  readonly since: number;
  readonly upgrades: Upgrades;
  /** What is wrong with a record that its schema cannot see, as the end of a sentence; null when it is whole. */
  flaw?(record: R, project: { readonly [list: string]: unknown }): string | null;
  /** What goes into the bin beside it and comes back with it; missing for what is not kept when it is deleted. */
  readonly kept?: z.ZodType;
  /** Whether it goes as soon as nothing names it any more. */
  readonly whileNamed?: boolean;
}
