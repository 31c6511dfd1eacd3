import { IconColumns3, IconPalette } from '@tabler/icons-vue';
import { addColourwayEdit } from '@sphalerite/core/project';
import type { Command } from '../../../stores/commands';
import { useDialogs } from '../../../stores/dialogs';
import { useSession } from '../../../stores/session';
import { TABS, useColours } from './colours-state';
import { all, need, needsColourways, needsPalette, needsPart } from '../../../stores/needs';

/** A part is taken apart into pieces; what does it comes when it is first used. */
function apartCommands(): Command[] {
  const colours = useColours();
  const apart = async () => (await import('../apart/apart-state')).useApart();
  return [
    {
      id: 'apart.selection',
      title: 'The selection is a piece',
      group: 'Part',
      keys: ['Alt+J'],
      enabled: needsPart,
      run: async () => {
        colours.tab = 'apart';
        (await apart()).bySelection();
      },
    },
    {
      id: 'apart.paint',
      title: 'Paint a piece',
      group: 'Part',
      keys: ['Alt+K'],
      enabled: needsPart,
      run: async () => {
        colours.tab = 'apart';
        (await apart()).paint(null);
      },
    },
    {
      id: 'apart.take',
      title: 'Take the part apart',
      group: 'Part',
      keys: ['Ctrl+Alt+J'],
      enabled: all(
        needsPart,
        need(() => colours.tab === 'apart', 'open “Apart” on the right first'),
      ),
      run: async () => (await apart()).take(),
    },
  ];
}

/** Colours, colourways and finishes, for menus, keys and the command search. */
export function colourCommands(): Command[] {
  const session = useSession();
  const colours = useColours();
  const TITLES = {
    part: 'Show the part’s properties',
    colours: 'Show colours: swatch, ramp, colourways, palette',
    finish: 'Show finishes: gradient, speckle, bricks, planks',
    apart: 'Show how the part is taken apart',
  };
  const colour = (
    id: string,
    title: string,
    run: (args?: unknown) => unknown,
    keys: string[],
    more: Partial<Command> = {},
  ): Command => ({ id, title, group: 'Colours', keys, enabled: needsPalette, run, ...more });
  const ask = (kind: 'delete' | 'replace') => (): void => {
    colours.tab = 'colours';
    colours.task = { kind, bytes: colours.meant };
  };
  return [
    ...TABS.map((t, i) =>
      colour(`tab.${t}`, TITLES[t], () => (colours.tab = t), [`Shift+${i + 1}`], {
        icon: IconPalette,
        on: () => colours.tab === t,
      }),
    ),
    ...apartCommands(),
    colour('swatch.edit', 'Edit the swatch in hand', () => (colours.tab = 'colours'), ['Alt+E']),
    colour('swatch.replace', 'Replace the swatch…', ask('replace'), ['Alt+P']),
    colour('swatch.delete', 'Delete the swatch…', ask('delete'), ['Ctrl+Alt+Delete', 'Alt+Delete']),
    colour(
      'swatch.renameMany',
      'Rename many swatches…',
      () => {
        const palette = session.palette!;
        const bytes = colours.picked.length > 1 ? colours.picked : palette.swatches.map((s) => s.byte);
        useDialogs().renameMany = { of: 'swatches', palette: palette.id, bytes };
      },
      ['Ctrl+Shift+F2'],
    ),
    colour(
      'swatch.ramp',
      'Tones of the swatch as a ramp',
      () => {
        colours.picked = [];
        colours.tab = 'colours';
      },
      ['Alt+O'],
    ),
    colour(
      'colourway.new',
      'New colourway',
      (from?: unknown) => {
        const at = typeof from === 'string' ? from : null;
        const name = at
          ? session.project!.colourways.find((c) => c.id === at)!.name
          : `Colourway ${session.project!.colourways.length + 1}`;
        session.apply(addColourwayEdit, { name, from: at }, (p) => ({ colourway: p.colourways.at(-1)!.id }));
      },
      ['Ctrl+Alt+N'],
    ),
    colour(
      'colourway.next',
      'Use the next colourway',
      () => {
        const ids = [null, ...session.project!.colourways.map((c) => c.id)];
        colours.activate(ids[(ids.indexOf(session.view.colourway) + 1) % ids.length]!);
      },
      ['Alt+N'],
      { enabled: needsColourways },
    ),
    colour(
      'colourway.sideBySide',
      'All colourways side by side',
      () => (colours.sideBySide = !colours.sideBySide),
      ['Alt+D'],
      {
        icon: IconColumns3,
        on: () => colours.sideBySide,
        enabled: needsColourways,
      },
    ),
    colour(
      'finish.paint',
      'Paint the finish',
      async () => (await import('./finish-state')).useFinish().paint(),
      ['Ctrl+Enter'],
      {
        enabled: all(
          needsPart,
          need(() => colours.tab === 'finish', 'open “Finish” on the right first'),
        ),
      },
    ),
  ];
}
