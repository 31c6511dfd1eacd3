import {
  EXPORTERS,
  type ExportOrder,
  type ExportPlan,
  type Exporter,
  type Note,
  type Subject,
  type WrittenFile,
  optionFields,
  zipFiles,
} from '@sphalerite/core/files';
import { type Project, find } from '@sphalerite/core/model';
import { defineStore } from 'pinia';
import { computed, reactive, ref, shallowRef } from 'vue';
import { download, exported } from '../../shell/files/exporting';
import { useNotices } from '../../stores/notices';
import { onOtherProject } from '../../stores/project-settings';
import { useSession } from '../../stores/session';
import { JobCancelled } from '../../workers/protocol';

/** Files made of the project itself; pictures are saved where they are traced. */
export const OUTPUTS: readonly Exporter[] = EXPORTERS.filter((e) => e.takes !== 'picture');

interface Made {
  readonly project: Project;
  readonly key: string;
  readonly files: readonly WrittenFile[];
  readonly counts: ExportPlan['counts'];
  readonly notes: readonly Note[];
}

/** The file in hand as it stands, made in a worker. */
export const useShip = defineStore('ship', () => {
  const session = useSession();
  const notices = useNotices();
  const chosen = ref(OUTPUTS[0]!.id);
  const exporter = computed(() => OUTPUTS.find((e) => e.id === chosen.value)!);
  const fields = computed(() => optionFields(exporter.value.options));
  /** Options by exporter, as they were last set. */
  const options = reactive<Record<string, Record<string, unknown>>>(
    Object.fromEntries(OUTPUTS.map((e) => [e.id, e.options.parse({}) as Record<string, unknown>])),
  );
  /** A part or a scene by itself; null is the whole figure. */
  const only = ref<{ of: 'part' | 'scene'; id: string } | null>(null);
  onOtherProject(() => (only.value = null));

  const subject = computed<Subject>(() => {
    const p = session.project;
    if (exporter.value.takes === 'palette')
      return { of: 'palette', palette: session.palette?.id ?? '', colourway: session.view.colourway };
    const one = only.value;
    if (one?.of === 'part' && find(p?.parts ?? [], one.id)) return { of: 'part', part: one.id };
    if (one?.of === 'scene' && find(p?.scenes ?? [], one.id)) return { of: 'scene', scene: one.id };
    return { of: 'rig' };
  });
  const order = computed<ExportOrder>(() => ({
    exporter: chosen.value,
    subject: subject.value,
    options: { ...options[chosen.value] },
  }));

  const made = shallowRef<Made | null>(null);
  const working = ref(false);
  let abort: AbortController | null = null;

  /** Makes the files anew unless they are of this very project and order already. */
  async function make(): Promise<boolean> {
    const project = session.project;
    if (!project) return false;
    const wanted = order.value,
      key = JSON.stringify(wanted);
    if (made.value?.project === project && made.value.key === key) return true;
    abort?.abort();
    const mine = new AbortController();
    abort = mine;
    working.value = true;
    try {
      const out = await exported(project, wanted, { signal: mine.signal });
      made.value = { project, key, ...out };
      return true;
    } catch (e) {
      if (e instanceof JobCancelled) return false;
      made.value = null;
      notices.fail(e);
      return false;
    } finally {
      if (abort === mine) working.value = false;
    }
  }
  async function save(): Promise<void> {
    if (!(await make())) return;
    // What was left out or changed stands among the checks.
    const { files } = made.value!;
    // Several files that belong together come as one.
    if (files.length > 1)
      download([zipFiles(`${files[0]!.name.replace(/\.[^.]*$/, '')}.zip`, files)], 'application/zip');
    else download(files, exporter.value.type);
  }
  const bytes = computed(() => made.value?.files.reduce((n, f) => n + f.bytes.length, 0) ?? 0);
  return { chosen, exporter, fields, options, only, order, made, bytes, working, make, save };
});
