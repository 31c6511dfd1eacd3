import { type Vec3, add, cross, length, normalize, scale, sub } from '../math';
import { sceneLength } from '../scene';
import { type CameraPath, type Clip, type Project, type Shot, TICKS, find } from '../model';

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
  if (makes === 'clip') {
    if (shot.scene !== null) return sceneLength(project, shot.scene) > 0 ? null : 'sceneStands';
    return find(project.clips, shot.clip) ? null : 'noClip';
  }
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

/** Degrees from where the camera stands at each of so many pictures; whole turns end before their first picture comes again. */
export function pathOf(path: CameraPath, count: number): number[] {
  const { reach, eased } = path,
    whole = pathLoops(path),
    steps = Math.max(1, whole ? count : count - 1);
  return Array.from({ length: count }, (_, i) => {
    const t = i / steps,
      k = eased ? t * t * (3 - 2 * t) : t;
    return reach * (whole ? k : k - 0.5);
  });
}

/** Whether the last picture of a path goes over into the first. */
export const pathLoops = ({ kind, reach }: CameraPath): boolean => kind !== 'fly-past' && reach % 360 === 0;

/** Most degrees of a fly-past: at 180 it would begin infinitely far away. */
const MOST_PAST = 160;

/** When a clip that plays on is pictured, so long after the time of its shot; null is a scene, whose clips go about by themselves. */
function playedOn(clip: Clip | null, from: number, ticks: number): number {
  const time = from + Math.round(ticks);
  if (!clip || clip.length === 0) return time;
  return clip.loop ? time % clip.length : Math.min(time, clip.length);
}

/** A shot at a place of its path, in degrees from where its camera stands. */
export function alongPath(shot: Shot, degrees: number): Shot {
  const { kind, reach } = shot.output.path;
  // What stands there turns one way when the eye goes about it the other, and the light with the eye.
  if (kind !== 'fly-past') return turnedShot(shot, kind === 'turntable' ? -degrees : degrees, kind === 'turntable');
  const { camera } = shot,
    angle = degrees * Math.min(1, MOST_PAST / reach);
  const ahead = sub(camera.target, camera.eye),
    aside = cross(ahead, [0, 1, 0]);
  if (length(aside) < 1e-9) return shot;
  const way = scale(normalize(aside), length(ahead) * Math.tan((angle * Math.PI) / 180));
  return { ...shot, camera: { ...camera, eye: add(camera.eye, way) } };
}

const picture = (shot: Shot): Shot => ({ ...shot, output: { ...shot.output, makes: 'picture' } });

/** All pictures that a shot becomes, in the order in which they follow one another; none where {@link takeProblem} tells why. */
export function framesOf(project: Project, shot: Shot): Frame[] {
  if (takeProblem(project, shot)) return [];
  const { makes, fps, seconds, sprites } = shot.output;
  const clip = shot.scene === null ? (find(project.clips, shot.clip) ?? null) : null;
  if (makes === 'picture') return [{ shot, clip, direction: 0, index: 0, seconds: 0 }];
  if (makes === 'path') {
    const count = Math.max(1, Math.round(seconds * fps)),
      each = seconds / count,
      { path } = shot.output;
    return pathOf(path, count).map((degrees, index) => {
      const time = path.plays ? playedOn(clip, shot.time, index * each * TICKS) : shot.time;
      return {
        ...{ shot: picture({ ...alongPath(shot, degrees), time }), clip, index, seconds: each },
        direction: path.kind === 'turntable' ? degrees : 0,
      };
    });
  }
  if (makes === 'clip' && shot.scene !== null) {
    // As long as the longest of what plays there.
    const length = sceneLength(project, shot.scene),
      times = timesOf({ length, loop: true }, fps);
    return times.map((time, index) => ({
      ...{ shot: picture({ ...shot, clip: null, time }), clip: null, direction: 0, index },
      seconds: length / TICKS / times.length,
    }));
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
