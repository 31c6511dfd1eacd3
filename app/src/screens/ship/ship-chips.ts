import { IconBox, IconBrush, IconPlayerPlay } from '@tabler/icons-vue';
import type { Chip } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useFacePicking } from './face-picking';
import { useLooking } from './looking';
import { useShip } from './ship-state';

/** How far colliders are off, in metres, in words. */
const off = (metres: number): string => (metres === 0 ? 'exact' : `at most ${(metres * 100).toFixed(1)} cm off`);

/** What is live in Ship, in a few words each. */
export function shipChips(): Chip[] {
  const session = useSession();
  const ship = useShip();
  const looking = useLooking();
  const picking = useFacePicking();
  const p = ship.profile;
  if (!p) return [];
  if (picking.on)
    return [
      {
        text: picking.away ? 'giving faces back' : `picking faces for “${picking.slot}”`,
        tone: picking.away ? 'red' : 'green',
        icon: IconBrush,
        does: 'done',
        run: () => void (picking.on = false),
      },
      ...(picking.lit?.slot ? [{ text: `of “${picking.lit.slot}”`, tone: 'resin' as const }] : []),
    ];
  const { collider, place } = p,
    n = looking.facts?.colliders ?? 0;
  const out: Chip[] = [];
  if (collider.shape !== 'none' && n > 0)
    out.push({
      text: `${n} ${n === 1 ? 'collider' : 'colliders'}, ${collider.moves}, ${off(looking.facts!.within / place.unitsPerMetre)}`,
      tone: 'green',
      icon: IconBox,
    });
  out.push({ text: `${place.up.toUpperCase()} up, faces ${place.forward.toUpperCase()}`, tone: 'resin' });
  const e = looking.arrived?.extent;
  if (e && session.project)
    out.push({
      text: `${((e.hi[1] - e.lo[1]) * session.project.metresPerUnit).toFixed(2)} m beside a metre`,
      tone: 'resin',
    });
  if (looking.look === 'slots')
    for (const s of looking.facts?.slots ?? []) out.push({ text: s.name, tone: 'resin', colour: s.colour });
  if (looking.clip)
    out.push({
      text: looking.clip,
      tone: 'green',
      icon: IconPlayerPlay,
      does: 'rest',
      run: () => looking.play(null),
    });
  return out;
}
