import { type Delivered, type FaceShares, type Shipped, wholeShipped } from '@sphalerite/core/files';
import { type DeliveryProfile, type Project, deliveriesOf, deliveryOf, find, findIn } from '@sphalerite/core/model';
import {
  type DeliveryChange,
  type DeliveryFigures,
  type DeliveryFinding,
  budgetFindings,
  deliveryFigures,
  setDeliveryEdit,
} from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { download } from '../../shell/files/exporting';
import { useDelivery } from '../../stores/delivery';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useShipSubject } from '../../stores/ship-subject';
import { JobCancelled } from '../../workers/protocol';
import { sharedPool } from '../../workers/pool';
import { makeChecker } from './checker';

/** What was made of a project by a delivery. */
export interface Made {
  readonly project: Project;
  readonly key: string;
  readonly delivered: Delivered;
  /** SHA-256 of each of its files. */
  readonly hashes: readonly string[];
  readonly figures: DeliveryFigures;
  readonly shares: FaceShares | null;
  /** A game file of it, for the view to read back; null when there can be none. */
  readonly seen: Uint8Array<ArrayBuffer> | null;
}

/** The delivery in hand: its files as they stand, made in a worker while one looks. */
export const useShip = defineStore('ship', () => {
  const session = useSession();
  const notices = useNotices();
  const delivery = useDelivery();
  const profile = computed(() => {
    const p = session.project;
    return p && (deliveryOf(p, delivery.chosen) ?? deliveriesOf(p)[0]!);
  });
  const choice = useShipSubject();
  const subject = computed<Shipped>(() => {
    const p = session.project,
      one = choice.only;
    if (one?.of === 'part' && find(p?.parts ?? [], one.id)) return { of: 'part', part: one.id };
    if (one?.of === 'scene' && find(p?.scenes ?? [], one.id)) return { of: 'scene', scene: one.id };
    const home = one?.of === 'group' ? p?.scenes.find((s) => findIn(s.placements, one.id)) : undefined;
    if (one && home) return { of: 'group', scene: home.id, placement: one.id };
    return p ? wholeShipped(p) : { of: 'rig' };
  });
  const key = computed(() => JSON.stringify([profile.value, subject.value]));

  const made = shallowRef<Made | null>(null);
  /** Why nothing could be made, as a sentence. */
  const trouble = ref('');
  const findings = shallowRef<readonly DeliveryFinding[]>([]);
  /** How far the making has come; null when nothing is being made. */
  const progress = ref<number | null>(null);
  let abort: AbortController | null = null;

  function change(what: DeliveryChange): void {
    const p = profile.value;
    if (!p) return;
    session.apply(setDeliveryEdit, { delivery: p.ready ?? p.id, change: what });
  }

  /** What is being made just now. */
  let under: { readonly project: Project; readonly key: string; readonly done: Promise<boolean> } | null = null;
  /** Makes the files anew unless they are of this very project and delivery already. Gives whether they stand. */
  function make(): Promise<boolean> {
    const project = session.project,
      with_ = profile.value,
      wanted = key.value;
    if (!project || !with_) return Promise.resolve(false);
    if (made.value?.project === project && made.value.key === wanted) return Promise.resolve(true);
    // Whoever wants the same waits for the same.
    if (under?.project === project && under.key === wanted) return under.done;
    const mine = { project, key: wanted, done: makeNow(project, with_, wanted) };
    under = mine;
    void mine.done.finally(() => under === mine && (under = null));
    return mine.done;
  }
  async function makeNow(project: Project, with_: DeliveryProfile, wanted: string): Promise<boolean> {
    abort?.abort();
    const mine = new AbortController();
    abort = mine;
    progress.value = 0;
    const order = { subject: subject.value, profile: with_, colourway: null };
    try {
      const out = await sharedPool().run(
        'deliver',
        (sent) => ({
          // What is in the bin goes into nothing but the project's own file.
          project: sent.packProject(project, with_.formats.includes('project') ? 'all' : undefined),
          order,
        }),
        { signal: mine.signal, worker: 0, onProgress: (share) => abort === mine && (progress.value = share) },
      );
      const figures = deliveryFigures(project, out.delivered);
      made.value = { project, key: wanted, ...out, figures };
      trouble.value = '';
      // Those of before stand until they have been looked for again.
      const others = findings.value.filter((f) => !f.code.startsWith('budget'));
      findings.value = [...budgetFindings(project, with_, figures), ...others];
      void check(project, with_, wanted, figures, mine.signal);
      return true;
    } catch (e) {
      if (e instanceof JobCancelled) return false;
      made.value = null;
      findings.value = [];
      trouble.value = e instanceof Error ? e.message : String(e);
      return false;
    } finally {
      if (abort === mine) progress.value = null;
    }
  }
  const checker = makeChecker();
  async function check(
    project: Project,
    with_: DeliveryProfile,
    wanted: string,
    figures: DeliveryFigures,
    signal: AbortSignal,
  ): Promise<void> {
    const order = { subject: subject.value, profile: with_, colourway: null };
    const found = await checker(project, order, figures, signal).catch((e: unknown) => {
      if (!(e instanceof JobCancelled)) notices.fail(e);
      return null;
    });
    if (found && made.value?.project === project && made.value.key === wanted) findings.value = found;
  }
  function stop(): void {
    abort?.abort();
    progress.value = null;
  }

  /** Hands all files of the delivery to the browser, several as one ZIP; or those of one format alone. */
  async function save(format?: string): Promise<void> {
    if (!(await make())) {
      if (trouble.value) notices.say(trouble.value, { kind: 'error' });
      return;
    }
    const { delivered } = made.value!;
    const files = format
      ? delivered.formats.filter((f) => f.exporter === format).flatMap((f) => f.files)
      : delivered.files;
    // Several files that belong together come as one.
    const stem = (format ? files : delivered.files)[0]!.name.replace(/\..*$/, '');
    if (files.length === 1) return download(files);
    download([await sharedPool().run('zip', () => ({ name: `${stem}.zip`, files }))], 'application/zip');
  }
  const bytes = computed(() => made.value?.delivered.files.reduce((n, f) => n + f.bytes.length, 0) ?? 0);
  /** Figures of the first format that has them. */
  const counts = computed(() => {
    const all = made.value?.delivered.formats ?? [];
    return (all.find((f) => 'triangles' in f.counts) ?? all[0])?.counts ?? {};
  });
  return { profile, subject, key, made, trouble, findings, progress, bytes, counts, change, make, stop, save };
});
