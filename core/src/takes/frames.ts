import { type Vec3, add, sub } from '../math';
import { type Clip, type Project, type Shot, TICKS, find } from '../model';

/** One picture of a shot that becomes many. */
export interface Frame {
  /** The shot as it is for this picture. */
  readonly shot: Shot;
  /** What moves in it. */
  readonly clip: Clip | null;
  /** Degrees that what stands there is turned by, seen from above against the clock. */
  readonly direction: number;
  /** Counted within its clip and direction. */
  readonly index: number;
  /** How long it stands. */
  readonly seconds: number;
}

/** What is wrong with a shot that cannot become what it should. */
export type TakeProblem = 'noClip' | 'noClips' | 'sceneStands';

/** Why a shot cannot become what it says; null when it can. */
export function takeProblem(project: Project, shot: Shot): TakeProblem | null {
  const { makes, sprites } = shot.output;
  if (makes === 'clip') return shot.scene !== null ? 'sceneStands' : find(project.clips, shot.clip) ? null : 'noClip';
  if (makes !== 'sprites' || sprites.clips === 'one') return null;
  return shot.scene !== null ? 'sceneStands' : project.clips.length > 0 ? null : 'noClips';
}

/** Times in ticks at which a clip is pictured: a loop ends before its first picture comes again. */
export function timesOf(clip: Pick<Clip, 'length' | 'loop'>, fps: number): number[] {
  const steps = Math.max(1, Math.round((clip.length / TICKS) * fps));
  const count = clip.loop ? steps : steps + 1;
  return Array.from({ length: count }, (_, i) => Math.round((clip.length * i) / steps));
}

/** A shot seen from so many degrees further around its target, from above against the clock; `lit` takes the light along. */
export function turnedShot(shot: Shot, degrees: number, lit: boolean): Shot {
  if (degrees === 0) return shot;
  const { camera, light } = shot;
  const a = (degrees * Math.PI) / 180,
    [x, y, z] = sub(camera.eye, camera.target);
  const away: Vec3 = [x * Math.cos(a) + z * Math.sin(a), y, z * Math.cos(a) - x * Math.sin(a)];
  return {
    ...shot,
    camera: { ...camera, eye: add(camera.target, away) },
    light: lit
      ? {
          ...light,
          sun: { ...light.sun, azimuth: light.sun.azimuth + degrees },
          sky: { ...light.sky, turn: light.sky.turn + degrees },
        }
      : light,
  };
}

const picture = (shot: Shot): Shot => ({ ...shot, output: { ...shot.output, makes: 'picture' } });

/** All pictures that a shot becomes, in the order in which they follow one another; none where {@link takeProblem} tells why. */
export function framesOf(project: Project, shot: Shot): Frame[] {
  if (takeProblem(project, shot)) return [];
  const { makes, fps, seconds, sprites } = shot.output;
  const clip = shot.scene === null ? (find(project.clips, shot.clip) ?? null) : null;
  if (makes === 'picture') return [{ shot, clip, direction: 0, index: 0, seconds: 0 }];
  if (makes === 'turn') {
    const count = Math.max(1, Math.round(seconds * fps));
    return Array.from({ length: count }, (_, index) => {
      const direction = (360 * index) / count;
      return { shot: picture(turnedShot(shot, direction, false)), clip, direction, index, seconds: seconds / count };
    });
  }
  const clips: (Clip | null)[] = makes === 'sprites' && sprites.clips === 'all' ? [...project.clips] : [clip];
  const directions = makes === 'sprites' ? sprites.directions : 1;
  return clips.flatMap((c) =>
    Array.from({ length: directions }, (_, d) => {
      const direction = (360 * d) / directions;
      // What stands there turns one way: the eye goes about it the other, and the light with the eye.
      const turned = picture(turnedShot(shot, -direction, true));
      const times = c ? timesOf(c, fps) : [shot.time];
      return times.map((time, index) => ({
        ...{ shot: { ...turned, clip: c?.id ?? null, time }, clip: c, direction, index },
        seconds: c ? c.length / TICKS / Math.max(1, c.loop ? times.length : times.length - 1) : 0,
      }));
    }).flat(),
  );
}
