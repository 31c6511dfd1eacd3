import {
  IconBulb,
  IconCube3dSphere,
  IconEyeCheck,
  IconFocusCentered,
  IconGrid4x4,
  IconPerspective,
  IconPictureInPicture,
  IconShadow,
  IconTexture,
  IconUsers,
} from '@tabler/icons-vue';
import { NEIGHBOURS, nextOf, useSettings } from '../stores/settings';
import { useView } from '../stores/view';
import { SHARPNESS } from '../viewport/sharpness';
import { type ViewName, VIEWS } from '../viewport/orbit-camera';
import type { Command } from '../stores/commands';
import { VISIONS, type Vision } from '@sphalerite/core/palette';

export const VISION_NAMES: Record<Vision, string> = {
  all: 'all colours',
  protan: 'without red (protan)',
  deutan: 'without green (deutan)',
  tritan: 'without blue (tritan)',
  grey: 'lightness alone',
};

const KEYS: Record<ViewName, string> = {
  front: 'Ctrl+1',
  back: 'Ctrl+Alt+1',
  right: 'Ctrl+2',
  left: 'Ctrl+Alt+2',
  top: 'Ctrl+3',
  bottom: 'Ctrl+Alt+3',
};

/** How the cubes are shown: light, lines, backdrop, the colours as others see them. */
function lookCommands(): Command[] {
  const { settings } = useSettings();
  return [
    {
      id: 'view.grid',
      title: 'Floor grid',
      group: 'View',
      keys: ['G'],
      icon: IconGrid4x4,
      on: () => settings.grid,
      run: () => (settings.grid = !settings.grid),
    },
    {
      id: 'view.edges',
      get title() {
        return { none: 'Lines: none', cubes: 'Lines between cubes', colours: 'Lines where colours meet' }[
          settings.edges
        ];
      },
      group: 'View',
      keys: ['L'],
      icon: IconTexture,
      on: () => settings.edges !== 'none',
      run: () => (settings.edges = ({ none: 'cubes', cubes: 'colours', colours: 'none' } as const)[settings.edges]),
    },
    {
      id: 'view.lit',
      title: 'Light on the cubes',
      group: 'View',
      keys: ['Alt+L'],
      icon: IconBulb,
      on: () => settings.lit,
      run: () => (settings.lit = !settings.lit),
    },
    {
      id: 'view.glow',
      title: 'Glow of swatches',
      group: 'View',
      keys: ['Alt+G'],
      on: () => settings.glow,
      run: () => (settings.glow = !settings.glow),
    },
    {
      id: 'view.backdrop',
      get title() {
        return `Backdrop of the view: ${settings.backdrop}`;
      },
      group: 'View',
      keys: ['Alt+B'],
      run: () =>
        (settings.backdrop = ({ theme: 'light', light: 'grey', grey: 'dark', dark: 'theme' } as const)[
          settings.backdrop
        ]),
    },
    {
      id: 'view.vision',
      get title() {
        return `See as: ${VISION_NAMES[settings.vision]}`;
      },
      group: 'View',
      keys: ['Ctrl+Alt+C'],
      icon: IconEyeCheck,
      on: () => settings.vision !== 'all',
      run: () => (settings.vision = VISIONS[(VISIONS.indexOf(settings.vision) + 1) % VISIONS.length]!),
    },
    {
      id: 'view.shadows',
      title: 'Shadows',
      group: 'View',
      keys: ['Shift+L'],
      icon: IconShadow,
      on: () => settings.shadows,
      run: () => (settings.shadows = !settings.shadows),
    },
    {
      id: 'view.inset',
      title: 'Traced inset',
      group: 'View',
      keys: ['Ctrl+Alt+T'],
      icon: IconPictureInPicture,
      on: () => settings.inset,
      run: () => (settings.inset = !settings.inset),
    },
    {
      id: 'view.sharpness',
      get title() {
        return `The view is drawn ${settings.sharpness}; make it ${nextOf(SHARPNESS, settings.sharpness)}`;
      },
      group: 'View',
      keys: ['Ctrl+Alt+Q'],
      run: () => (settings.sharpness = nextOf(SHARPNESS, settings.sharpness)),
    },
    {
      id: 'view.neighbours',
      get title() {
        return `Neighbours: ${settings.neighbours}; make them ${nextOf(NEIGHBOURS, settings.neighbours)}`;
      },
      group: 'View',
      keys: ['N'],
      icon: IconUsers,
      on: () => settings.neighbours !== 'hidden',
      run: () => (settings.neighbours = nextOf(NEIGHBOURS, settings.neighbours)),
    },
  ];
}

/** Where the view looks from. */
function cameraCommands(): Command[] {
  const view = useView();
  const change = (f: () => void) => () => {
    f();
    view.viewport?.invalidate();
  };
  return [
    {
      id: 'view.flat',
      title: 'Orthographic view: no perspective',
      group: 'View',
      keys: ['O'],
      icon: IconPerspective,
      on: () => view.flat,
      run: change(() => {
        view.flat = !view.flat;
        if (view.viewport) view.viewport.camera.orthographic = view.flat;
      }),
    },
    {
      id: 'view.isometric',
      title: 'Isometric view',
      group: 'View',
      keys: ['Ctrl+4'],
      icon: IconCube3dSphere,
      run: change(() => {
        view.viewport?.camera.lookIsometric();
        view.flat = true;
      }),
    },
    {
      id: 'view.frame',
      title: 'Frame what is selected',
      group: 'View',
      keys: ['Home'],
      icon: IconFocusCentered,
      run: () => {
        const here = view.inHand();
        if (here) view.viewport?.frameBox(here.lo, here.hi);
        else view.viewport?.frame();
      },
    },
    {
      id: 'view.all',
      title: 'Frame everything',
      group: 'View',
      keys: ['Shift+Home'],
      run: () => view.viewport?.frame(),
    },
    {
      id: 'view.nearer',
      title: 'Zoom in',
      group: 'View',
      keys: ['Ctrl+Up'],
      run: change(() => view.viewport?.camera.zoom(0.85)),
    },
    {
      id: 'view.farther',
      title: 'Zoom out',
      group: 'View',
      keys: ['Ctrl+Down'],
      run: change(() => view.viewport?.camera.zoom(1 / 0.85)),
    },
    {
      id: 'view.turnLeft',
      title: 'Turn the view left',
      group: 'View',
      keys: ['Ctrl+Left'],
      run: change(() => view.viewport?.camera.turn(-24, 0)),
    },
    {
      id: 'view.turnRight',
      title: 'Turn the view right',
      group: 'View',
      keys: ['Ctrl+Right'],
      run: change(() => view.viewport?.camera.turn(24, 0)),
    },
    ...(Object.keys(VIEWS) as ViewName[]).map((name): Command => ({
      id: `view.${name}`,
      title: `Look from ${name === 'top' ? 'above' : name === 'bottom' ? 'below' : `the ${name}`}`,
      group: 'View',
      keys: [KEYS[name]],
      run: () => view.viewport?.look((c) => c.look(name)),
    })),
  ];
}

/** Commands of the view, the same on every screen that has one. */
export const viewCommands = (): Command[] => [...lookCommands(), ...cameraCommands()];
