import { IconLock, IconPhoto } from '@tabler/icons-vue';
import { shotPose, shotProject } from '@sphalerite/core/render';
import { REST_POSE } from '@sphalerite/core/rig';
import { find } from '@sphalerite/core/model';
import { gather } from '@sphalerite/core/scene';
import { watch } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { NO_OVERLAY } from '../../viewport/overlay';
import { useDraft } from '../../shell/takes/draft';
import { focusAt } from './focus';
import { useGuides } from './guides';
import { judgingCommands, setUpCommands } from './judging-commands';
import { cameraOfView, isUnset, pictureCommands, shotCommands } from './light-commands';
import { usePictures } from '../../shell/takes/pictures';
import { useShot } from './shot-in-hand';

export function lightControl(): ScreenControl {
  const session = useSession();
  const view = useView();
  const light = usePictures();
  const hand = useShot();
  const draft = useDraft();
  const guides = useGuides();

  const follow = (): void => {
    const shot = session.shot,
      v = view.viewport;
    if (!shot || !v) return;
    const [w, h] = shot.output.size;
    v.camera.locked = false;
    v.camera.lens = { ...v.camera.lens, aspect: w / h };
    // A shot that was never looked through shows all there is.
    if (isUnset(shot)) return v.frame(w / h);
    v.camera.follow(shot.camera);
    v.camera.locked = shot.camera.locked;
    v.invalidate();
  };
  // The shot's camera is only lent to the view; the artist's own comes back afterwards.
  const own = view.viewport ? view.viewport.camera.state() : null;
  const stop = watch(
    () => [session.hand.shot, view.viewport] as const,
    () => {
      const of = [light.making, ...light.pictures];
      light.current = of.find((p) => p?.shot.id === session.hand.shot) ?? null;
      follow();
    },
    { immediate: true },
  );
  // The view is the shot's camera: what is changed of that is seen at once.
  const stopLens = watch(
    () => hand.shot && JSON.stringify([hand.shot.camera, hand.shot.output.size]),
    (now, before) => now && before && follow(),
  );
  const stopDraft = watch(
    () => [hand.shot, session.project, view.turned, light.current, light.tracing, draft.on] as const,
    () => draft.soon(hand.shot, light.current || light.tracing || !view.viewport ? null : cameraOfView()),
    { immediate: true },
  );
  return {
    scene: () => {
      const { project: p } = session,
        { shot } = hand;
      if (!p) return null;
      const project = shot ? shotProject(p, shot) : p,
        pose = shot ? shotPose(p, shot) : REST_POSE;
      const scene = find(project.scenes, shot?.scene ?? null);
      return { project, pose, list: gather(project, scene ? { of: 'scene', scene: scene.id } : { of: 'rig', pose }) };
    },
    overlay: () => NO_OVERLAY,
    inHand: () => null,
    pointer: {
      down: (p) => guides.focusing && focusAt(p),
      move: () => undefined,
      up: () => undefined,
      leave: () => undefined,
      cancel: () => undefined,
    },
    trail: () => [session.project?.name ?? '', session.shot?.name ?? 'no shot'],
    chips: () => [
      ...(hand.shot?.camera.locked ? [{ text: 'camera locked', tone: 'green' as const, icon: IconLock }] : []),
      ...(light.tracing || light.calming
        ? [{ text: light.tracing ? 'tracing' : 'taking the noise out', tone: 'resin' as const, icon: IconPhoto }]
        : []),
    ],
    readout: () => {
      const s = session.shot;
      return {
        left: s
          ? [
              ['picture', `${s.output.size[0]} × ${s.output.size[1]}`],
              ['samples', String(s.output.samples)],
              ...(light.tracing ? [['left', `${Math.ceil(light.left)} s`] as [string, string]] : []),
            ]
          : [],
        right: light.current?.done ? `traced in ${light.current.seconds.toFixed(1)} s` : '',
      };
    },
    ownCamera: true,
    tools: [
      'light.draft',
      'light.guides',
      'light.histogram',
      'light.zebra',
      'light.sun',
      'light.region',
      'light.before',
      'light.compare',
    ],
    menu: ['light.trace', 'light.focus', 'light.camera', 'light.follow'],
    commands: [...pictureCommands(), ...shotCommands(follow), ...judgingCommands(), ...setUpCommands()],
    dispose() {
      stop();
      stopLens();
      stopDraft();
      draft.stop();
      hand.letGo();
      guides.focusing = guides.regioning = guides.sunning = guides.before = false;
      if (view.viewport) view.viewport.camera.locked = false;
      if (view.viewport && own) view.viewport.camera.restore(own);
      view.viewport?.invalidate();
    },
  };
}
