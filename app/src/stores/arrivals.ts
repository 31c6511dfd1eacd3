import type { Find } from '@sphalerite/core/files';
import type { Id } from '@sphalerite/core/model';
import type { Site } from '@sphalerite/core/project';
import type { Swatch } from '@sphalerite/core/palette';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';

/** A use that a file has, to be chosen from. */
export interface FileOffer {
  readonly importer: string;
  readonly does: string;
}

/** Something that is about to be brought in. */
export interface Arrival {
  readonly importer: string;
  readonly find: Find;
  /** Other ways in which it can be brought in, its own among them. */
  readonly uses: readonly FileOffer[];
  /** Where in a scene it was dropped. */
  readonly site?: Site;
  /** The part that is made anew of what it was made of, and the wishes it was made with. */
  readonly again?: { readonly part: Id; readonly options: Readonly<Record<string, unknown>> };
}

/** What has come in from outside and waits for the screen it is meant for. */
export const useArrivals = defineStore('arrivals', () => {
  /** Rises when a project has come onto the shelf. */
  const shelved = ref(0);
  /** Colours that wait to be appended to the palette or put in its place. */
  const palette = shallowRef<{ readonly name: string; readonly swatches: readonly Swatch[] } | null>(null);
  /** A file with more than one use, and who waits for the choice. */
  const question = shallowRef<{
    readonly title: string;
    readonly offers: readonly FileOffer[];
    answer(importer: string | null): void;
  } | null>(null);

  /** What is about to be brought in, as it is chosen how; null when nothing is. */
  const waiting = shallowRef<Arrival | null>(null);
  /** What comes after it, when several were given at once. */
  const behind = shallowRef<readonly Arrival[]>([]);
  /** Goes on with the next of them; false when there is none. */
  function next(): boolean {
    const [first, ...rest] = behind.value;
    waiting.value = first ?? null;
    behind.value = rest;
    return first !== undefined;
  }

  /** Opens a project of the shelf; set by who can. */
  const open = shallowRef<(id: string, screen?: string) => void>(() => undefined);

  /** Where in the scene that is seen a point of the page is; null where none is under it. Set by the screen that shows one. */
  const siteAt = shallowRef<(x: number, y: number) => Site | null>(() => null);
  /** Stands a project of the shelf in a scene; set by the same screen. */
  const stand = shallowRef<(id: Id, site: Site) => Promise<void>>(() => Promise.resolve());

  /** Asks what is to be done with a file; null when nothing. */
  function ask(title: string, offers: readonly FileOffer[]): Promise<string | null> {
    question.value?.answer(null);
    return new Promise((resolve) => {
      question.value = {
        title,
        offers,
        answer(importer) {
          question.value = null;
          resolve(importer);
        },
      };
    });
  }
  return { shelved, palette, question, waiting, behind, next, open, siteAt, stand, ask };
});
