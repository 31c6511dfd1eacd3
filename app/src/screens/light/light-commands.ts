import {
  IconBolt,
  IconCamera,
  IconLock,
  IconMovie,
  IconPhoto,
  IconPhotoDown,
  IconPlayerPause,
  IconPlayerPlay,
  IconPlayerTrackNext,
  IconSparkles,
} from '@tabler/icons-vue';
import { type Camera, FIRST_CAMERA, PLAIN_LENS, type Shot, sceneByItself } from '@sphalerite/core/model';
import { addShotEdit, deleteShotEdit, each, editShotEdit } from '@sphalerite/core/project';
import { isLarge } from '@sphalerite/core/takes';
import { download } from '../../shell/files/exporting';
import type { Command } from '../../stores/commands';
import { renameInHand } from '../shared/rename-in-hand';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { useAnimate } from '../animate/animate-state';
import { straightened } from './camera-kinds';
import { useTakes } from '../../shell/takes/takes';
import { useDraft } from '../../shell/takes/draft';
import { useGuides } from './guides';
import { usePictures } from '../../shell/takes/pictures';
import { filesOf, thumbnailOf } from '../../shell/takes/picture-files';
import { useShot } from './shot-in-hand';
import { all, need, needsClip, needsShot, needsWriting } from '../../stores/needs';

/** A shot without what makes it itself. */
function settingsOf(shot: Shot | null): Partial<Omit<Shot, 'id' | 'name'>> {
  if (!shot) return {};
  const { id: _id, name: _name, ...rest } = shot;
  return rest;
}

/** The view's camera as a shot's, with the lens of the shot in hand. */
export function cameraOfView(): Camera {
  const c = useView().viewport!.camera;
  const own = useSession().shot?.camera;
  const kind = !c.orthographic ? 'perspective' : own && own.kind !== 'perspective' ? own.kind : 'orthographic';
  return straightened({
    ...(own ?? { ...FIRST_CAMERA, ...PLAIN_LENS }),
    ...{ kind, eye: c.eye, target: c.target, height: c.span },
    ...(c.orthographic ? {} : { fov: c.fov }),
  });
}

/** Whether nobody has set the shot's camera yet. */
export const isUnset = (shot: Shot): boolean => JSON.stringify(shot.camera) === JSON.stringify(FIRST_CAMERA);

const MAKING = {
  picture: 'Make the picture',
  clip: 'Make the clip',
  path: 'Make the path',
  sprites: 'Make the sprites',
};

/** Tracing the picture of the shot, stopping and saving it. */
export function pictureCommands(): Command[] {
  const session = useSession();
  const shot = useShot();
  const draft = useDraft();
  const guides = useGuides();
  const light = usePictures();
  const takes = useTakes();
  const save = async (): Promise<void> => {
    const p = light.current;
    if (p) download(await filesOf(light.asShown(p)));
  };
  /** What one sees is what is traced, also where no camera was set. */
  const withCamera = (): void => {
    if (isUnset(session.shot!))
      session.apply(editShotEdit, { shot: session.shot!.id, change: { camera: cameraOfView() } });
  };
  return [
    {
      id: 'light.trace',
      title: 'Trace the picture',
      group: 'Light',
      keys: ['T'],
      icon: IconPlayerPlay,
      enabled: all(
        needsShot,
        need(() => !light.tracing, 'a picture is being made'),
      ),
      run: () => {
        withCamera();
        // A film that is too large for memory is made piece by piece, like a clip picture by picture.
        if (isLarge(session.shot!.output)) return void takes.start(session.project!, session.shot!);
        const [w, h] = session.shot!.output.size,
          r = guides.region;
        void light.trace(session.shot!, r && { x: r[0] * w, y: r[1] * h, width: r[2] * w, height: r[3] * h });
      },
    },
    {
      id: 'light.goOn',
      title: 'Go on with the picture',
      group: 'Light',
      keys: ['Shift+O'],
      icon: IconPlayerTrackNext,
      enabled: all(
        need(() => light.current !== null && light.canGoOn(light.current), 'no picture can become any clearer'),
        need(() => !light.tracing, 'a picture is being made'),
      ),
      run: () => void light.goOn(light.current!),
    },
    {
      id: 'light.stop',
      title: 'Pause the picture',
      group: 'Light',
      keys: ['Esc'],
      icon: IconPlayerPause,
      enabled: need(() => light.tracing || light.calming, 'no picture is being made'),
      run: () => light.cancel(),
    },
    {
      id: 'light.calm',
      title: 'Without noise',
      group: 'Light',
      keys: ['Shift+T'],
      icon: IconSparkles,
      enabled: all(needsShot, needsWriting),
      on: () => session.shot?.output.denoise ?? false,
      run: () => shot.set('output', { denoise: !session.shot!.output.denoise }),
    },
    {
      id: 'light.draft',
      title: 'Trace what the view shows, in place of drawing it',
      group: 'Light',
      keys: ['Shift+D'],
      icon: IconBolt,
      on: () => draft.on,
      run: () => void (draft.on = !draft.on),
    },
    {
      id: 'light.save',
      title: 'Save the picture',
      group: 'Light',
      keys: ['Shift+P'],
      icon: IconPhoto,
      enabled: need(() => light.current !== null, 'no picture was made yet'),
      run: save,
    },
    {
      id: 'light.thumbnail',
      title: 'Save a thumbnail of the picture',
      group: 'Light',
      keys: ['Ctrl+Alt+S'],
      icon: IconPhotoDown,
      enabled: need(() => light.current !== null, 'no picture was made yet'),
      run: async () => light.current && download(await thumbnailOf(light.asShown(light.current))),
    },
    {
      id: 'light.make',
      get title() {
        return MAKING[session.shot?.output.makes ?? 'picture'];
      },
      group: 'Light',
      keys: ['Shift+M'],
      icon: IconMovie,
      enabled: all(
        needsShot,
        need(() => session.shot?.output.makes !== 'picture', 'the shot becomes a single picture'),
      ),
      run: () => {
        withCamera();
        void takes.start(session.project!, session.shot!);
      },
    },
    {
      id: 'light.back',
      title: 'Back to the view',
      group: 'Light',
      enabled: all(
        need(() => light.current !== null, 'no picture was made yet'),
        need(() => !light.tracing, 'a picture is being made'),
      ),
      run: () => (light.current = null),
    },
  ];
}

/** Shots, and what they look at; `follow` looks from where the shot looks. */
export function shotCommands(follow: () => void): Command[] {
  const session = useSession();
  const anim = useAnimate();
  return [
    {
      id: 'light.camera',
      title: 'Set the shot’s camera from this view',
      group: 'Light',
      keys: ['C'],
      icon: IconCamera,
      enabled: all(
        needsShot,
        needsWriting,
        need(() => !session.shot?.camera.locked, 'the shot’s camera is locked'),
      ),
      run: () => session.apply(editShotEdit, { shot: session.shot!.id, change: { camera: cameraOfView() } }),
    },
    {
      id: 'light.lock',
      title: 'Lock the view to the shot’s camera',
      group: 'Light',
      keys: ['Ctrl+Alt+L'],
      icon: IconLock,
      enabled: all(needsShot, needsWriting),
      on: () => session.shot?.camera.locked ?? false,
      run: () => {
        const { camera } = session.shot!;
        // What one sees is what is locked.
        const seen = camera.locked ? camera : cameraOfView();
        session.apply(editShotEdit, {
          shot: session.shot!.id,
          change: { camera: { ...seen, locked: !camera.locked } },
        });
        follow();
      },
    },
    {
      id: 'light.follow',
      title: 'Look through the shot’s camera',
      group: 'Light',
      keys: ['Shift+C'],
      enabled: needsShot,
      run: follow,
    },
    {
      id: 'light.pose',
      title: 'Take the pose from Animate',
      group: 'Light',
      enabled: all(needsShot, needsClip, needsWriting),
      run: () =>
        session.apply(editShotEdit, {
          shot: session.shot!.id,
          change: { clip: session.clip!.id, time: Math.round(anim.time) },
        }),
    },
    {
      id: 'shot.new',
      title: 'New shot from this view',
      group: 'Light',
      enabled: needsWriting,
      run: () =>
        session.apply(
          addShotEdit,
          {
            name: 'Shot',
            shot: {
              // A project of scenes alone has no figure to picture.
              scene: sceneByItself(session.project!),
              ...settingsOf(session.shot),
              colourway: session.shot?.colourway ?? session.view.colourway,
              camera: cameraOfView(),
            },
          },
          (p) => ({ shot: p.shots.at(-1)!.id }),
        ),
    },
    {
      id: 'shot.double',
      title: 'Duplicate the shot',
      group: 'Light',
      enabled: all(needsShot, needsWriting),
      run: () =>
        session.apply(addShotEdit, { name: session.shot!.name, shot: settingsOf(session.shot) }, (p) => ({
          shot: p.shots.at(-1)!.id,
        })),
    },
    renameInHand('shot', 'Light'),
    {
      id: 'shot.delete',
      title: 'Delete the shot (to the bin)',
      group: 'Light',
      enabled: all(needsShot, needsWriting),
      run: () =>
        session.apply(
          each(deleteShotEdit),
          session.view.chosen.shot.map((shot) => ({ shot })),
        ),
    },
  ];
}
