import { Command, InvalidArgumentError } from 'commander';
import { bringCommand, waysHelp } from './bring';
import { checkCommand } from './check';
import { formatsHelp } from './delivery';
import { exportCommand, watchCommand } from './export';
import { infoCommand } from './info';
import { CliError } from './io';
import { isMainThread } from 'node:worker_threads';
import { renderCommand } from './render';
import { serveThread } from './render-threads';

const whole = (text: string): number => {
  const n = Number(text);
  if (!Number.isInteger(n) || n < 1) throw new InvalidArgumentError('Give a whole number above zero.');
  return n;
};
const size = (text: string): [number, number] => {
  const m = /^(\d{1,4})x(\d{1,4})$/.exec(text);
  if (!m || Number(m[1]) < 1 || Number(m[2]) < 1 || Number(m[1]) > 8192 || Number(m[2]) > 8192) {
    throw new InvalidArgumentError('Give width and height in pixels, up to 8192, as in 640x400.');
  }
  return [Number(m[1]), Number(m[2])];
};

/** What this program does when it is no thread of itself. */
async function run(): Promise<void> {
  const program = new Command('sphalerite')
    .description('Looks into, exports and pictures Sphalerite projects, with the same core as the application.')
    .exitOverride((e) => process.exit(e.exitCode === 0 ? 0 : 2));
  program
    .command('info')
    .argument('<file>', 'project file (.sphal)')
    .option('--json', 'print as JSON')
    .description('list parts, bones, clips, scenes and shots')
    .action(infoCommand);
  const collected = (v: string, all: string[]): string[] => [...all, v];
  /** What is said of a delivery, the same for every command that makes one. */
  const delivering = (command: Command): Command =>
    command
      .argument('<file>', 'project file (.sphal)')
      .option('--profile <name>', 'delivery profile: phone, desktop, headset, print, or one of the project')
      .option('--format <list>', 'kinds of file, comma-separated; those of the profile by default, else glb')
      .option('--colourway <name>', 'only in this colourway; "all" for files of each')
      .option('--part <name>', 'only this part')
      .option('--scene <name>', 'a scene instead of the rig')
      .option('--placement <name>', 'only this placement of a scene, with what hangs on it')
      .option('--palette <name>', 'which palette, for formats of palettes')
      .option('--option <key=value>', 'an option of a format or of the delivery; can be given again', collected, []);
  delivering(program.command('export'))
    .option('--out <folder>', 'folder to write to', '.')
    .option('--json', 'print what was written as JSON')
    .description('write the project, or something of it, as files')
    .addHelpText('after', `\n${formatsHelp()}`)
    .action(exportCommand);
  delivering(program.command('watch'))
    .requiredOption('--out <folder>', 'folder to write to')
    .option('--json', 'print what was written as JSON')
    .description('export now, and again whenever the file changes')
    .action(watchCommand);
  delivering(program.command('check'))
    .option('--strict', 'exit code 1 for whatever is worth a look, too')
    .option('--json', 'print as JSON')
    .description('check against a delivery; exit code 1 when it is over its budget')
    .action(checkCommand);
  program
    .command('bring')
    .argument('[files...]', 'pictures, meshes with what belongs to them, slices; none for what is made up')
    .requiredOption('--as <way>', 'how they come in')
    .option('--option <key=value>', 'an option of that way; can be given again', collected, [])
    .requiredOption('--out <file>', 'project file to write (.sphal)')
    .option('--json', 'print what came of it as JSON')
    .description('make a project of pictures and the like')
    .addHelpText('after', `\n${waysHelp()}`)
    .action(bringCommand);
  program
    .command('render')
    .argument('<file>', 'project file (.sphal)')
    .option('--shot <name>', 'name of the shot; the first one by default')
    .option('--size <WxH>', 'pixels; the size of the shot by default', size)
    .option('--samples <n>', 'samples a pixel; those of the shot by default', whole)
    .option('--noise <share>', 'how noisy a part may be to be done early, 0 to 1', Number)
    .option('--denoise', 'take most of the noise out')
    .option('--clip [name]', 'all frames of a clip; that of the shot by default')
    .option('--turntable', 'once about, under light that stays')
    .option('--path', 'the path of the camera that the shot says')
    .option('--sprites', 'a sprite sheet, as the shot says, with its JSON beside it')
    .option('--fps <n>', 'frames a second; those of the shot by default', whole)
    .option('--passes', 'with .exr: colour, normal, depth and id beside it')
    .requiredOption('--out <file>', 'file to write: .png, .jpg, .exr; of what moves .gif or .zip')
    .description('trace a picture of a shot, or all that it becomes, on all cores')
    .action(renderCommand);

  await parsed(program);
}

async function parsed(program: Command): Promise<void> {
  try {
    await program.parseAsync();
  } catch (e) {
    if (!(e instanceof CliError)) throw e;
    console.error(`sphalerite: ${e.message}`);
    process.exitCode = 2;
  }
}

if (isMainThread) await run();
else serveThread();
