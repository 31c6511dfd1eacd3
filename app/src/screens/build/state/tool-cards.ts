import { computed, ref, shallowRef, toRaw, watch } from 'vue';
import { projectSetting } from '../../../stores/project-settings';
import { type CardOptions, READY_CARDS, type Reach, type ToolCard, type Verb, cardsSchema } from '../../../tools/card';

/** What a card is called until it gets a name of its own. */
function nameFor(c: ToolCard): string {
  if (c.reach === 'extrude') return `Extrude${c.face === 'face' ? '' : c.face === 'colour' ? ' colour' : ' plane'}`;
  if (c.reach === 'opening') return c.sill ? 'Window' : 'Door';
  const verb = { add: 'Add', erase: 'Erase', paint: 'Paint', select: 'Select' }[c.verb];
  const what =
    c.reach === 'cylinder' && c.profile !== 'straight'
      ? c.profile
      : c.reach === 'line' && c.path !== 'straight'
        ? c.path
        : c.reach;
  return `${verb} ${c.wall > 0 && ['box', 'ellipsoid', 'cylinder'].includes(c.reach) ? 'hollow ' : ''}${what}`;
}

/** Options that are sizes: a card remembers the last it was used with. */
const SIZES = ['size', 'endSize', 'rise', 'run', 'wall', 'top', 'border', 'proud', 'recess', 'filling'] as const;
type Sizes = Partial<Pick<CardOptions, (typeof SIZES)[number]>>;

function sizesOf(more: Partial<ToolCard>): Sizes {
  return Object.fromEntries(SIZES.flatMap((k) => (more[k] === undefined ? [] : [[k, more[k]]])));
}

/**
 * The row of tools, kept for each project, and the one in hand. What is changed of the tool in hand, but for its sizes,
 * is changed in the hand alone: its card gives it again as it was, unless the change is kept as a tool of its own.
 */
export function useToolCards() {
  const cards = shallowRef<readonly ToolCard[]>(READY_CARDS);
  const index = ref(0);
  /** The card whose name is being typed; −1 for none. */
  const naming = ref(-1);
  /** What the hand has changed of the card. */
  const changed = shallowRef<Partial<ToolCard> | null>(null);
  /** The sizes that each reach had last where it was taken up in passing. */
  const passing = new Map<Reach, Sizes>();
  const card = computed<ToolCard>(() => {
    const own = cards.value[index.value] ?? cards.value[0]!;
    if (!changed.value) return own;
    const now = { ...own, ...changed.value };
    return { ...now, name: nameFor(now) };
  });
  watch(index, () => (changed.value = null), { flush: 'sync' });
  const keep = projectSetting('tools', cardsSchema, (list) => {
    cards.value = list.length > 0 ? list : READY_CARDS;
    index.value = 0;
    changed.value = null;
  });
  function setCards(next: readonly ToolCard[]): void {
    cards.value = next;
    keep(next.map((c) => ({ ...c })));
  }
  /** Takes a tool up, as its card has it. */
  function take(i: number): void {
    index.value = i;
    changed.value = null;
  }
  function change(more: Partial<ToolCard>): void {
    const own = cards.value[index.value]!,
      now = { ...changed.value, ...more },
      { wall, ...others } = sizesOf(more);
    // Solid or hollow is more than a size.
    const sizes: Sizes = wall === undefined || (wall === 0) !== (own.wall === 0) ? others : { ...others, wall };
    const reach = now.reach ?? own.reach;
    if (reach !== own.reach) passing.set(reach, { ...passing.get(reach), ...sizes });
    else if (Object.keys(sizes).length > 0) setCards(toRaw(cards.value).with(index.value, { ...own, ...sizes }));
    const kept = cards.value[index.value]!;
    const differs = Object.entries(now).filter(([k, v]) => kept[k as keyof ToolCard] !== v);
    changed.value = differs.length > 0 ? Object.fromEntries(differs) : null;
  }
  /** Extrude and Opening only add; another verb makes them a box. */
  function setVerb(verb: Verb): void {
    const onlyAdds = ['extrude', 'opening'].includes(card.value.reach);
    change(onlyAdds && verb !== 'add' ? { verb, reach: 'box' } : { verb });
  }
  function setReach(reach: Reach): void {
    const onlyAdds = reach === 'extrude' || reach === 'opening';
    change({
      ...(reach === cards.value[index.value]!.reach ? {} : passing.get(reach)),
      reach,
      ...(onlyAdds ? { verb: 'add' } : {}),
      ...(reach === 'extrude' ? { grow: true } : {}),
    });
  }
  const setOption = (more: Partial<CardOptions>): void => change(more);
  /** The tool in hand as a card of its own, which is taken up. */
  function keepAsNew(more: Partial<ToolCard> = {}): void {
    setCards([...cards.value, { ...card.value, ...more }]);
    take(cards.value.length - 1);
  }
  return { cards, index, naming, card, changed, take, keepAsNew, setCards, change, setVerb, setReach, setOption };
}
