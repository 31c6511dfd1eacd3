import { IconCamera, IconPhoto, IconPlayerPlay, IconPlayerStop } from '@tabler/icons-vue';
import { addShotEdit, deleteShotEdit, editShotEdit } from '@sphalerite/core/project';
import { shotPose, shotProject } from '@sphalerite/core/render';
import { REST_POSE } from '@sphalerite/core/rig';
import type { Camera, Shot } from '@sphalerite/core/model';
import { watch } from 'vue';
import { download, fileName } from '../../shell/project-files';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { useAnimate } from '../animate/animate-state';
import { useLight } from './light-state';

/** A shot without what makes it itself. */
function settingsOf(shot: Shot | null): Partial<Omit<Shot, 'id' | 'name'>> {
  if (!shot) return {};
  const { id: _id, name: _name, ...rest } = shot;
  return rest;
}

export function lightControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const light = useLight();
  const anim = useAnimate();

  /** The view's camera as a shot's. */
  function cameraOfView(): Camera {
    const c = view.viewport!.camera;
    return {
      kind: c.orthographic ? 'orthographic' : 'perspective',
      eye: c.eye,
      target: c.target,
      fov: c.fov,
      height: c.span,
    };
  }
  const follow = (): void => {
    const shot = session.shot,
      v = view.viewport;
    if (!shot || !v) return;
    v.camera.follow(shot.camera);
    v.invalidate();
  };
  // The shot's camera is only lent to the view; the artist's own comes back afterwards.
  const own = view.viewport ? view.viewport.camera.state() : null;
  const stop = watch(
    () => [session.view.shot, view.viewport] as const,
    () => {
      light.current = light.pictures.find((p) => p.shot.id === session.view.shot) ?? null;
      follow();
    },
    { immediate: true },
  );
  const has = (): boolean => session.shot !== null;
  const png = async (): Promise<void> => {
    const p = light.current;
    if (p) download(`${fileName(session.project!.name)}-${fileName(p.shot.name)}.png`, await light.pngOf(p));
  };
  return {
    scene: () =>
      session.project
        ? {
            project: session.shot ? shotProject(session.project, session.shot) : session.project,
            pose: session.shot ? shotPose(session.project, session.shot) : REST_POSE,
            without: () => false,
            faint: () => false,
          }
        : null,
    overlay: () => NO_OVERLAY,
    pointer: {
      down: () => false,
      move: () => undefined,
      up: () => undefined,
      leave: () => undefined,
      cancel: () => undefined,
    },
    trail: () => [session.project?.name ?? '', session.shot?.name ?? 'no shot'],
    chips: () => (light.tracing ? [{ text: 'tracing', tone: 'resin', icon: IconPhoto }] : []),
    readout: () => {
      const s = session.shot;
      return {
        left: s
          ? [
              ['picture', `${s.size[0]} × ${s.size[1]}`],
              ['samples', String(s.samples)],
              ...(light.tracing ? [['left', `${Math.ceil(light.left)} s`] as [string, string]] : []),
            ]
          : [],
        right: light.current?.done ? `traced in ${light.current.seconds.toFixed(1)} s` : '',
      };
    },
    menu: ['light.trace', 'light.camera', 'light.follow'],
    commands: [
      {
        id: 'light.trace',
        title: 'Trace the picture',
        group: 'Light',
        keys: ['T'],
        icon: IconPlayerPlay,
        enabled: () => has() && !light.tracing,
        run: () => void light.trace(session.shot!),
      },
      {
        id: 'light.stop',
        title: 'Stop tracing',
        group: 'Light',
        keys: ['Esc'],
        icon: IconPlayerStop,
        enabled: () => light.tracing,
        run: () => light.cancel(),
      },
      {
        id: 'light.png',
        title: 'Save the picture as PNG',
        group: 'Light',
        keys: ['Shift+P'],
        icon: IconPhoto,
        enabled: () => light.current !== null,
        run: png,
      },
      {
        id: 'light.back',
        title: 'Back to the view',
        group: 'Light',
        enabled: () => light.current !== null && !light.tracing,
        run: () => (light.current = null),
      },
      {
        id: 'light.camera',
        title: 'Let the shot look from here',
        group: 'Light',
        keys: ['C'],
        icon: IconCamera,
        enabled: () => has() && session.writable,
        run: () => session.apply(editShotEdit, { shot: session.shot!.id, change: { camera: cameraOfView() } }),
      },
      {
        id: 'light.follow',
        title: 'Look from where the shot looks',
        group: 'Light',
        keys: ['Shift+C'],
        enabled: has,
        run: follow,
      },
      {
        id: 'light.pose',
        title: 'Take the pose from Animate',
        group: 'Light',
        enabled: () => has() && session.clip !== null && session.writable,
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
        enabled: () => session.writable,
        run: () =>
          session.apply(
            addShotEdit,
            {
              name: 'Shot',
              shot: {
                ...settingsOf(session.shot),
                colourway: session.shot?.colourway ?? session.view.colourway,
                camera: cameraOfView(),
              },
            },
            (p) => ({ shot: p.shots.at(-1)!.id }),
          ),
      },
      {
        id: 'shot.delete',
        title: 'Delete the shot (to the bin)',
        group: 'Light',
        enabled: () => has() && session.writable,
        run: () => session.apply(deleteShotEdit, { shot: session.shot!.id }),
      },
    ],
    dispose() {
      stop();
      light.cancel();
      if (view.viewport && own) view.viewport.camera.restore(own);
      view.viewport?.invalidate();
    },
  };
}
