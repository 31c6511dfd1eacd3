import { framesOf, takeProblem } from '@sphalerite/core/takes';
import type { Project, Shot } from '@sphalerite/core/model';
import { say } from '../../words';

/** What a shot will become, in figures, or why it cannot; empty for a single picture. */
export function takePlan(project: Project, shot: Shot): string {
  const problem = takeProblem(project, shot);
  if (problem) return say(`take.${problem}`);
  const { makes, fps, series, sprites } = shot.output;
  if (makes === 'picture') return '';
  const { length } = framesOf(project, shot);
  if (makes === 'sprites') return `${length} sprites${sprites.shadow ? ' and as many shadows' : ''}`;
  // Delays of a GIF are hundredths of a second.
  return `${length} frames${series === 'gif' && 100 % fps !== 0 ? '; a GIF stands for whole 1/100 s, so some stand 1/100 s longer' : ''}`;
}
