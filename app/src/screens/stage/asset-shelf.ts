import { type Asset, type Id, find } from '@sphalerite/core/model';
import {
  type AssetChanges,
  type Site,
  assetChanges,
  embedProjectEdit,
  isSameAsset,
  refreshAssetEdit,
  standingAt,
} from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { ref, shallowRef } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { type ShelfRow, listShelf, readFromShelf } from '../../storage/shelf';
import { say } from '../../words';
import { putDown, shownExtent } from './placing';
import { useStage } from './stage-state';

/** Other projects of the shelf, to stand in scenes as they are now, and to be brought up to date later. */
export const useAssetShelf = defineStore('asset shelf', () => {
  const session = useSession();
  const stage = useStage();
  const notices = useNotices();
  const rows = shallowRef<readonly ShelfRow[]>([]);
  /** The one that is being read. */
  const reading = ref<Id | null>(null);

  async function look(): Promise<void> {
    const all = await listShelf();
    rows.value = all.filter((r) => r.id !== session.project?.id && r.binned === null);
  }
  const assetOf = (id: Id): Asset | undefined => session.project?.assets.find((a) => a.source.project === id);
  const embed = async (row: ShelfRow): Promise<boolean> =>
    session.apply(embedProjectEdit, { project: await readFromShelf(row.id), revision: String(row.modified) });
  /** Takes a project up to be put down with a click; it is embedded when it is first taken. */
  async function take(row: ShelfRow): Promise<void> {
    stage.stamp = null;
    const known = assetOf(row.id);
    if (known) return hold(known.id);
    reading.value = row.id;
    try {
      if (await embed(row)) hold(session.project!.assets.at(-1)!.id);
    } catch (e) {
      notices.fail(e);
    } finally {
      reading.value = null;
    }
  }
  function hold(asset: Id): void {
    const shows = { kind: 'asset', asset, clip: null, time: 0 } as const;
    const now = stage.placing;
    stage.placing = now?.kind === 'asset' && now.asset === asset ? null : shows;
  }
  /** Stands a project of the shelf where it was dropped. */
  async function stand(id: Id, site: Site): Promise<void> {
    let asset = assetOf(id)?.id;
    if (asset === undefined) {
      const row = (await listShelf()).find((r) => r.id === id);
      if (!row || !(await embed(row))) return;
      asset = session.project!.assets.at(-1)!.id;
    }
    const shows = { kind: 'asset', asset, clip: null, time: 0 } as const;
    putDown(shows, standingAt(site, shownExtent(session.project!, shows)));
  }
  /** Brings an embedded project up to date, and tells what that changed. */
  async function refresh(id: Id): Promise<void> {
    const asset = find(session.project?.assets ?? [], id);
    if (!asset) return;
    const row = (await listShelf()).find((r) => r.id === asset.source.project);
    if (!row) {
      notices.say(say('assets.gone', { name: asset.name }), { kind: 'error' });
      return;
    }
    try {
      const project = await readFromShelf(row.id),
        changes = assetChanges(asset, project);
      if (isSameAsset(changes)) notices.say(say('assets.same', { name: asset.name }));
      else if (session.apply(refreshAssetEdit, { asset: id, project, revision: String(row.modified) }))
        notices.say(say('assets.fresh', { name: asset.name, what: told(changes) }));
    } catch (e) {
      notices.fail(e);
    }
  }
  return { rows, reading, look, take, stand, refresh };
});

/** As "parts Coat, Boot; clip Walk; bones". */
function told({ parts, clips, rig, colours }: AssetChanges): string {
  const some = (list: readonly string[]): string =>
    list.slice(0, 4).join(', ') + (list.length > 4 ? ` and ${list.length - 4} more` : '');
  return [
    ...(parts.length > 0 ? [`parts ${some(parts)}`] : []),
    ...(clips.length > 0 ? [`clips ${some(clips)}`] : []),
    ...(rig ? ['bones and mounts'] : []),
    ...(colours ? ['colours'] : []),
  ].join('; ');
}
