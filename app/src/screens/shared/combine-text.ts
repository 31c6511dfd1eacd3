import type { CombinePlan } from '@sphalerite/core/project';
import { say } from '../../words';

/** What combining comes to, in words: its size, and what is cut, looked up or tiled. */
export function combineText({ meeting, resampled, size, tiles }: CombinePlan): string {
  return [
    say('combine.size', { size: size.join(' × ') }),
    ...(meeting.factor > 1 ? [say('combine.finer', { parts: meeting.factor })] : []),
    ...(resampled.length > 0
      ? [say('combine.resampled', { n: resampled.length, list: resampled.slice(0, 3).join(', ') })]
      : []),
    ...(tiles > 1 ? [say('combine.tiles', { n: tiles })] : []),
  ].join(' ');
}
