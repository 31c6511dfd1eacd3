import {
  IconArrowBackUp,
  IconArrowForwardUp,
  IconBooks,
  IconFileExport,
  IconFlag,
  IconHistory,
  IconKeyboard,
  IconLayoutSidebarRightCollapse,
  IconMoon,
  IconPencil,
  IconSearch,
} from '@tabler/icons-vue';
import type { Router } from 'vue-router';
import { useNotices } from '../stores/notices';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useWayBack } from '../stores/way-back';
import { type Command, addCommands } from '../stores/commands';
import { useArrivals } from '../stores/arrivals';
import { useDialogs } from '../stores/dialogs';
import { saveProjectFile } from './files/project-files';
import { screens } from './screens';
import { DEMO } from './first-visit';
import { all, need, needsProject, needsWriting } from '../stores/needs';
import { say } from '../words';

/** To each screen, by the number it has on the job line. */
function goCommands(router: Router): Command[] {
  const session = useSession();
  return screens().map(({ id, title, icon }, i): Command => ({
    id: `go.${id}`,
    title: `Go to ${title}`,
    group: 'Steps',
    keys: [`Alt+${i + 1}`],
    icon,
    enabled: needsProject,
    on: () => router.currentRoute.value.params['step'] === id,
    run: () => router.push({ name: 'bench', params: { id: session.project!.id, step: id } }),
  }));
}

/** To screens beside the job line, which have no number. */
const besideCommands = (router: Router): Command[] => {
  const session = useSession();
  return [
    {
      id: 'go.bring',
      title: 'Go back to bringing in',
      group: 'Steps',
      enabled: all(
        needsProject,
        need(() => useArrivals().waiting !== null, 'nothing waits to be brought in'),
      ),
      run: () => router.push({ name: 'bench', params: { id: session.project!.id, step: 'bring' } }),
    },
  ];
};

/** What concerns the project as a whole: where it lies, its name, its file. */
function projectCommands(router: Router): Command[] {
  const dialogs = useDialogs();
  const session = useSession();
  const notices = useNotices();
  return [
    {
      id: 'project.shelf',
      title: 'To the shelf',
      group: 'Project',
      keys: ['Alt+0'],
      icon: IconBooks,
      run: () => router.push('/'),
    },
    {
      id: 'project.rename',
      title: 'Rename the project',
      group: 'Project',
      icon: IconPencil,
      enabled: all(needsProject, needsWriting),
      run: () => (dialogs.rename = true),
    },
    {
      id: 'project.export',
      title: 'Save a project file (.sphal)',
      group: 'Project',
      keys: ['Ctrl+Shift+S'],
      icon: IconFileExport,
      enabled: needsProject,
      run: () => saveProjectFile(session.project!),
    },
    {
      id: 'project.save',
      title: 'Save now',
      group: 'Project',
      keys: ['Ctrl+S'],
      enabled: needsProject,
      run: async () => {
        await session.flush();
        notices.say(say('save.done'));
      },
    },
  ];
}

/** Commands that are there on every screen. */
export function addShellCommands(router: Router): () => void {
  const dialogs = useDialogs();
  const session = useSession();
  const { settings } = useSettings();
  const way = useWayBack();
  return addCommands([
    {
      id: 'edit.undo',
      title: 'Undo',
      group: 'Edit',
      keys: ['Ctrl+Z'],
      icon: IconArrowBackUp,
      enabled: all(
        needsWriting,
        need(() => session.canUndo, 'nothing was done yet'),
      ),
      run: () => session.undo(),
    },
    {
      id: 'edit.redo',
      title: 'Redo',
      group: 'Edit',
      keys: ['Ctrl+Shift+Z', 'Ctrl+Y'],
      icon: IconArrowForwardUp,
      enabled: all(
        needsWriting,
        need(() => session.canRedo, 'nothing was undone'),
      ),
      run: () => session.redo(),
    },
    {
      id: 'edit.history',
      title: 'History',
      group: 'Edit',
      keys: ['Ctrl+H'],
      icon: IconHistory,
      enabled: needsProject,
      run: () => (dialogs.history = true),
    },
    {
      id: 'edit.keepPoint',
      title: 'Restore points: keep the project as it is now, or go back',
      group: 'Edit',
      keys: ['Ctrl+Alt+P'],
      icon: IconFlag,
      enabled: needsProject,
      run() {
        dialogs.pastOf = 'points';
        dialogs.history = true;
      },
    },
    {
      id: 'project.target',
      title: 'Target sheet: kind, size and limits',
      group: 'Project',
      enabled: needsProject,
      run: () => (dialogs.target = true),
    },
    {
      id: 'help.shortcuts',
      title: 'Shortcuts: look up, change, print',
      group: 'Help',
      keys: ['?'],
      icon: IconKeyboard,
      run: () => (dialogs.shortcuts = true),
    },
    {
      id: 'help.search',
      title: 'Find a command',
      group: 'Help',
      keys: ['Ctrl+K'],
      icon: IconSearch,
      run: () => (dialogs.search = true),
    },
    {
      id: 'help.coach',
      title: 'Show the first steps again',
      group: 'Help',
      enabled: all(
        needsProject,
        need(() => session.project?.id === DEMO, 'they are about Tamsin; open her from the shelf'),
      ),
      run: () => (dialogs.coach = true),
    },
    {
      id: 'part.back',
      title: 'Back to where the part was opened from',
      group: 'Steps',
      keys: ['Shift+Enter'],
      icon: IconArrowBackUp,
      enabled: need(() => way.from !== null, 'no part was opened from another screen'),
      run: way.back,
    },
    ...projectCommands(router),
    {
      id: 'look.theme',
      title: 'Change the theme: Daylight or Dusk',
      group: 'Look',
      keys: ['Alt+T'],
      icon: IconMoon,
      run: () => {
        settings.theme = document.documentElement.dataset['theme'] === 'dusk' ? 'daylight' : 'dusk';
      },
    },
    {
      id: 'look.fold',
      title: 'Hide the side panels',
      group: 'Look',
      keys: ['\\'],
      icon: IconLayoutSidebarRightCollapse,
      on: () => settings.sidesFolded,
      run: () => (settings.sidesFolded = !settings.sidesFolded),
    },
    ...goCommands(router),
    ...besideCommands(router),
  ]);
}
