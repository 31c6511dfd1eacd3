import type { Placement } from '@sphalerite/core/model';
import type { Site } from '@sphalerite/core/project';
import type { ScreenControl } from '../../shell/screen';
import { useArrivals } from '../../stores/arrivals';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useStampShelf } from '../../stores/stamp-shelf';
import { useView } from '../../stores/view';
import type { WorldRay } from '../../viewport/viewport';
import { landing } from './landing';
import { freeLayer, mustHaveScene, putDown, shownExtent } from './placing';
import type { SceneList } from './scene-list';
import { useStage } from './stage-state';
import { putStamp, stampExtent } from './stamping';

/** What is dropped on the view stands where it is dropped: pieces, stamps and projects from below, and files from outside. */
export function stageDrops({ list }: SceneList): Required<Pick<ScreenControl, 'accepts' | 'drop'>> & { letGo(): void } {
  const session = useSession();
  const stage = useStage();
  const view = useView();
  const stamps = useStampShelf();
  const arrivals = useArrivals();
  const notices = useNotices();
  const siteUnder = (ray: WorldRay): Site | null => {
    const { scene } = session;
    const there = scene && landing(list(), ray, null, stage.step);
    return there && { ...there, scene: scene.id, layer: freeLayer(scene) };
  };
  arrivals.siteAt = (x, y) => {
    const v = view.viewport;
    const seen = v && session.writable && document.elementFromPoint(x, y) === v.canvas;
    return seen ? siteUnder(v.rayAt(x, y)) : null;
  };
  arrivals.stand = async (id, site) => (await import('./asset-shelf')).useAssetShelf().stand(id, site);

  function put(ray: WorldRay, shows: Placement['shows']): void {
    const there = session.project && landing(list(), ray, shownExtent(session.project, shows), stage.step);
    if (there) putDown(shows, there);
  }
  /** @param name – of a stamp: its shelf and its id there */
  function stamped(ray: WorldRay, name: string): void {
    const stamp = stamps.all.find((s) => `${s.shelf} ${s.stamp.id}` === name);
    const there = stamp && mustHaveScene() && landing(list(), ray, stampExtent(stamp), stage.step);
    if (there) putStamp(stamp, there);
  }
  return {
    accepts: (what) => ['part', 'asset', 'stamp', 'project'].includes(what.kind),
    drop({ kind, ids }, { ray }) {
      for (const id of ids)
        if (kind === 'part') put(ray, { kind, part: id });
        else if (kind === 'asset') put(ray, { kind, asset: id, clip: null, time: 0 });
        else if (kind === 'stamp') stamped(ray, id);
        else {
          const site = mustHaveScene() && siteUnder(ray);
          if (site) void arrivals.stand(id, site).catch(notices.fail);
        }
    },
    letGo: () => void (arrivals.siteAt = () => null),
  };
}
