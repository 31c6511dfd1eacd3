import type { Light } from '../model';

/** How high the sun stands at noon, in degrees, and hours between its rise and that. */
const NOON = 58,
  HALF = 7;
const MIDDLE = 13;

/** The sun at an hour of the day: over the right side in the morning, behind the eye at noon, over the left in the evening. */
export function sunAt(hour: number): Pick<Light['sun'], 'azimuth' | 'elevation' | 'colour' | 'strength'> {
  const k = (hour - MIDDLE) / HALF;
  const elevation = Math.max(-8, NOON * Math.cos((Math.min(1.2, Math.abs(k)) * Math.PI) / 2));
  const high = Math.max(0, Math.min(1, elevation / 35));
  const mix = (low: number, up: number): number => Math.round(low + (up - low) * Math.sqrt(high));
  const hex = [mix(255, 255), mix(138, 244), mix(70, 226)].map((v) => v.toString(16).padStart(2, '0')).join('');
  return {
    azimuth: Math.round(-k * 105),
    elevation: Math.round(elevation * 10) / 10,
    colour: `#${hex}`,
    strength: Math.round((0.3 + 2.5 * Math.sqrt(high)) * 100) / 100,
  };
}

/** The hour at which the sun stands nearest to where it does, by its direction. */
export const hourOf = ({ azimuth }: Pick<Light['sun'], 'azimuth'>): number => {
  const a = ((azimuth + 540) % 360) - 180;
  return Math.max(5, Math.min(21, MIDDLE - (a / 105) * HALF));
};

/** An hour as a clock tells it. */
export function hourTold(hour: number): string {
  const minutes = Math.round(hour * 60);
  return `${String(Math.floor(minutes / 60)).padStart(2, '0')}:${String(minutes % 60).padStart(2, '0')}`;
}
