import { markBoneEdit } from '@sphalerite/core/project';
import { h } from 'vue';
import type { Command } from '../../stores/commands';
import { all, needsBone, needsWriting } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { LANE_COLOURS } from '../shared/lane-colours';

const CHOICES = [['that of its side', null], ...LANE_COLOURS] as const;
const idOf = (name: string): string => `lane.${name.replaceAll(' ', '')}`;
/** What the menu of a lane holds. */
export const LANE_COMMANDS: readonly string[] = CHOICES.map(([name]) => idOf(name));

/** A dot of a lane's colour. */
const dot = (colour: string | null) => () =>
  h('svg', { viewBox: '0 0 16 16' }, [
    h('circle', { cx: 8, cy: 8, r: 6, fill: colour ?? 'none', stroke: colour ?? 'currentColor' }),
  ]);

/** The colour of the lane of the bone in hand. */
export function laneCommands(): Command[] {
  const session = useSession();
  return CHOICES.map(([name, colour]): Command => ({
    id: idOf(name),
    title: `Colour of the lane: ${name}`,
    group: 'Animate',
    icon: dot(colour),
    enabled: all(needsBone, needsWriting),
    run: () => session.apply(markBoneEdit, { bone: session.bone!.id, colour }),
  }));
}
