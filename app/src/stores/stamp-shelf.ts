import { type Id, type Part, type Project, idsFrom, makeProject } from '@sphalerite/core/model';
import {
  type Edit,
  apply,
  bringPiecesEdit,
  deleteStampEdit,
  editContext,
  renameStampEdit,
  stampSet,
} from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, shallowRef } from 'vue';
import * as z from 'zod';
import { freshId } from '../storage/shelf';
import { getSetting, putSetting } from '../storage/settings-store';
import { useNotices } from './notices';
import { useSession } from './session';

/** Where a stamp lies: in the project, on the artist's own shelf, or among those that come along. */
export type Shelf = 'project' | 'own' | 'ready';
/** A stamp on a shelf, with the project that holds it; of several pieces the first stands for all. */
export interface ShelvedStamp {
  readonly shelf: Shelf;
  readonly source: Project;
  readonly stamp: Part;
  readonly name: string;
  readonly pieces: number;
}

const OWN = 'stampShelf';
const stored = z.instanceof(Uint8Array).nullable().catch(null);

/** Reading and writing of files come with the shelf, not with the screen that has one. */
const files = () => import('@sphalerite/core/files');

/** Stamps for every project: one's own shelf, which this browser keeps, and the one that comes along. */
export const useStampShelf = defineStore('stamp shelf', () => {
  const session = useSession();
  const notices = useNotices();
  const own = shallowRef<Project | null>(null);
  const ready = shallowRef<Project | null>(null);
  let loading: Promise<void> | null = null;

  async function fetchAll(): Promise<void> {
    const { readProjectFile } = await files();
    const bytes = await getSetting(OWN, stored);
    own.value = bytes
      ? readProjectFile(new Uint8Array(bytes)).result
      : makeProject('stamp-shelf', 'My stamps', idsFrom('stamp shelf'));
    const reply = await fetch('/content/stamps.sphal');
    if (reply.ok) ready.value = readProjectFile(new Uint8Array(await reply.arrayBuffer())).result;
  }
  /** Fetches the shelves when they are first looked at. */
  function open(): Promise<void> {
    return (loading ??= fetchAll().catch((e: unknown) => {
      loading = null;
      notices.fail(e);
    }));
  }

  const of = (shelf: Shelf, source: Project | null): ShelvedStamp[] => {
    const seen = new Set<string>();
    return (source?.stamps ?? []).flatMap((stamp): ShelvedStamp[] => {
      if (stamp.group !== null && seen.has(stamp.group)) return [];
      if (stamp.group !== null) seen.add(stamp.group);
      const pieces = stampSet(source!, stamp.id).length;
      return [{ shelf, source: source!, stamp, name: stamp.group ?? stamp.name, pieces }];
    });
  };
  const all = computed(() => [...of('project', session.project), ...of('own', own.value), ...of('ready', ready.value)]);

  async function change<A>(edit: Edit<A>, args: A): Promise<void> {
    if (!own.value) return;
    try {
      const next = apply(own.value, edit, args, editContext(freshId(), Date.now()));
      await putSetting(OWN, (await files()).writeProjectFile(next));
      own.value = next;
    } catch (e) {
      notices.fail(e);
    }
  }
  const pieces = (source: Project, id: Id) => ({
    ...{ source, inPlace: [], bones: false, at: null, whole: false },
    pieces: stampSet(source, id).map((s) => ({ kind: 'stamp', id: s.id })),
  });
  return {
    all,
    open,
    /** Keeps a stamp on one's own shelf, for every project. */
    keep: ({ source, stamp }: ShelvedStamp) => change(bringPiecesEdit, pieces(source, stamp.id)),
    /** Takes a stamp into the project; gives its id there. */
    take({ shelf, source, stamp }: ShelvedStamp): Id | null {
      if (shelf === 'project') return stamp.id;
      const n = session.project?.stamps.length ?? 0;
      return session.apply(bringPiecesEdit, pieces(source, stamp.id)) ? (session.project!.stamps[n]?.id ?? null) : null;
    },
    async remove({ shelf, source, stamp }: ShelvedStamp): Promise<void> {
      for (const s of stampSet(source, stamp.id))
        if (shelf === 'project') session.apply(deleteStampEdit, { stamp: s.id });
        else if (shelf === 'own') await change(deleteStampEdit, { stamp: s.id });
    },
    async rename({ shelf, stamp }: ShelvedStamp, name: string): Promise<void> {
      if (shelf === 'project') session.apply(renameStampEdit, { stamp: stamp.id, name });
      else if (shelf === 'own') await change(renameStampEdit, { stamp: stamp.id, name });
    },
  };
});
