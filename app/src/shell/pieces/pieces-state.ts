import { type Id, type Project, must } from '@sphalerite/core/model';
import {
  type BringAt,
  PIECE_KINDS,
  type Piece,
  type PieceKind,
  bringPiecesEdit,
  takeablePieces,
} from '@sphalerite/core/project';
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { useDialogs } from '../../stores/dialogs';
import { useSession } from '../../stores/session';
import { counted } from '../../words';

/** As a tick names a piece. */
export const keyOf = (p: { readonly kind: string; readonly id: Id }): string => `${p.kind} ${p.id}`;

/** What is being taken out of another project: what it has, what of it is ticked, and what clashes here. */
export const usePieces = defineStore('pieces', () => {
  const session = useSession();
  const dialogs = useDialogs();
  const source = shallowRef<Project | null>(null);
  const ticked = ref<readonly string[]>([]);
  const bones = ref(false);
  const whole = ref(false);
  const at = ref('');
  /** Parts that go into those of the same name here. */
  const inPlace = ref<readonly Id[]>([]);
  const pieces = computed(() => (source.value && session.project ? takeablePieces(session.project, source.value) : []));
  const groups = computed(() =>
    PIECE_KINDS.flatMap((kind) => {
      const list = pieces.value.filter((p) => p.kind === kind);
      return list.length > 0 ? [{ kind, list }] : [];
    }),
  );
  const taken = computed(() => pieces.value.filter((p) => ticked.value.includes(keyOf(p))));
  const hasTicked = (kind: PieceKind): boolean => taken.value.some((p) => p.kind === kind);
  const namesakes = computed(() => pieces.value.filter((p) => p.clash.over));

  function begin(p: Project): void {
    source.value = p;
    whole.value = false;
    const part = pieces.value.filter((o) => o.kind === 'part');
    const forBones = dialogs.pieces === 'bones';
    // Where all have a namesake here, their new shapes are meant rather than a second rig.
    const all = namesakes.value.length > 2 && namesakes.value.length === part.length;
    inPlace.value = forBones && all ? part.map((o) => o.id) : [];
    bones.value = forBones && !all && p.rig.bones.length > 0;
    ticked.value = forBones ? part.map(keyOf) : [];
    at.value = session.bone ? `bone ${session.bone.id}` : '';
  }
  function tick(list: readonly Piece[], on: boolean): void {
    const keys = new Set(list.map(keyOf));
    ticked.value = [...ticked.value.filter((k) => !keys.has(k)), ...(on ? keys : [])];
    // Clips move bones, so these come along.
    if (on && list.some((p) => p.kind === 'clip')) bones.value = true;
  }
  function withBones(on: boolean): void {
    bones.value = on;
    if (!on) ticked.value = ticked.value.filter((k) => !k.startsWith('clip '));
  }
  /** New shapes for what is here: nothing but parts that have a namesake, and no bones. */
  function allInPlace(): void {
    withBones(false);
    const list = namesakes.value;
    ticked.value = [...ticked.value.filter((k) => !k.startsWith('part ')), ...list.map(keyOf)];
    inPlace.value = list.map((p) => p.id);
  }
  function place(part: Id, over: boolean): void {
    inPlace.value = [...inPlace.value.filter((id) => id !== part), ...(over ? [part] : [])];
  }
  const hangs = computed<BringAt>(() => {
    const [kind, id] = at.value.split(' ') as [string, string];
    return kind === 'bone' ? { bone: id } : kind === 'point' ? { attachment: id } : null;
  });
  /** What comes, in words; empty while nothing is ticked. */
  const sum = computed(() => {
    const n = (kind: PieceKind): number => taken.value.filter((p) => p.kind === kind).length;
    return [
      ...(whole.value ? ['all of it'] : []),
      ...(bones.value ? [counted(source.value!.rig.bones.length, 'bones')] : []),
      ...(['part', 'clip', 'scene', 'palette', 'stamp'] as const).flatMap((k) =>
        n(k) > 0 ? [counted(n(k), `${k}s`)] : [],
      ),
      ...(n('delivery profile') > 0 ? [counted(n('delivery profile'), 'deliveries')] : []),
    ].join(', ');
  });
  function take(): boolean {
    const from = source.value!;
    const over = new Set(inPlace.value);
    const before = session.project!.rig.bones.length;
    return session.apply(
      bringPiecesEdit,
      {
        source: from,
        pieces: taken.value.map(({ kind, id }) => ({ kind, id })),
        inPlace: taken.value.filter((p) => p.kind === 'part' && over.has(p.id)).map((p) => p.id),
        bones: bones.value,
        at: hangs.value,
        whole: whole.value,
      },
      (p) => (bones.value ? { bone: p.rig.bones[before]?.id ?? null } : {}),
    );
  }
  const close = (): void => {
    dialogs.pieces = null;
    source.value = null;
  };
  const partOf = (p: Piece) => must(p.kind === 'stamp' ? source.value!.stamps : source.value!.parts, p.id, p.kind);
  return {
    ...{ source, ticked, bones, whole, at, inPlace, pieces, groups, namesakes, sum },
    ...{ begin, tick, allInPlace, withBones, place, hasTicked, take, close, partOf },
  };
});
