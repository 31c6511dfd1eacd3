import { computed, ref, shallowRef, toRaw } from 'vue';
import { projectSetting } from '../../../stores/project-settings';
import { type CardOptions, READY_CARDS, type Reach, type ToolCard, type Verb, cardsSchema } from '../../../tools/card';

/** What a card is called until it gets a name of its own. */
function nameFor(c: ToolCard): string {
  if (c.reach === 'extrude') return `Extrude${c.face === 'face' ? '' : c.face === 'colour' ? ' hue' : ' plane'}`;
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

/** The row of tools, kept for each project, and the one in hand. */
export function useToolCards() {
  const cards = shallowRef<readonly ToolCard[]>(READY_CARDS);
  const index = ref(0);
  /** The card whose name is being typed; −1 for none. */
  const naming = ref(-1);
  const card = computed(() => cards.value[index.value] ?? cards.value[0]!);
  const keep = projectSetting('tools', cardsSchema, (list) => {
    cards.value = list.length > 0 ? list : READY_CARDS;
    index.value = 0;
  });
  function setCards(next: readonly ToolCard[]): void {
    cards.value = next;
    keep(next.map((c) => ({ ...c })));
  }
  function change(more: Partial<ToolCard>): void {
    const before = card.value;
    const next = { ...before, ...more };
    // A name of one's own stays; a name that says verb and reach follows them.
    if (more.name === undefined && nameFor(before) === before.name) next.name = nameFor(next);
    setCards(toRaw(cards.value).with(index.value, next));
  }
  /** Extrude and Opening only add; another verb makes them a box. */
  function setVerb(verb: Verb): void {
    const onlyAdds = ['extrude', 'opening'].includes(card.value.reach);
    change(onlyAdds && verb !== 'add' ? { verb, reach: 'box' } : { verb });
  }
  function setReach(reach: Reach): void {
    const onlyAdds = reach === 'extrude' || reach === 'opening';
    change({ reach, ...(onlyAdds ? { verb: 'add' } : {}), ...(reach === 'extrude' ? { grow: true } : {}) });
  }
  const setOption = (more: Partial<CardOptions>): void => change(more);
  return { cards, index, naming, card, setCards, change, setVerb, setReach, setOption };
}
