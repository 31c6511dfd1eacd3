import type { Id, LampChange, Light } from '@sphalerite/core/model';

/** What a shot changes of a lamp; nothing yet where it says nothing. */
export const lampChange = ({ lamps }: Light, lamp: Id): LampChange =>
  lamps.changes.find((c) => c.lamp === lamp) ?? { lamp, strength: 1, colour: null, by: [0, 0, 0] };

/** The same with more of it changed. */
export function lampChanges(light: Light, lamp: Id, more: Partial<LampChange>): Pick<Light['lamps'], 'changes'> {
  const own = { ...lampChange(light, lamp), ...more };
  return { changes: [...light.lamps.changes.filter((c) => c.lamp !== lamp), own] };
}
