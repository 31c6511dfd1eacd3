import { Command, InvalidArgumentError } from 'commander';
import { exportCommand, formatsHelp } from './export';
import { infoCommand } from './info';
import { CliError } from './io';
import { renderCommand } from './render';

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

const program = new Command('sphalerite')
  .description('Looks into, exports and pictures Sphalerite projects, with the same core as the application.')
  .exitOverride((e) => process.exit(e.exitCode === 0 ? 0 : 2));
program
  .command('info')
  .argument('<file>', 'project file (.sphal)')
  .option('--json', 'print as JSON')
  .description('list parts, bones, clips and shots')
  .action(infoCommand);
program
  .command('export')
  .argument('<file>', 'project file (.sphal)')
  .option('--format <name>', 'kind of file, see below', 'glb')
  .option('--part <name>', 'only this part')
  .option('--scene <name>', 'a scene instead of the rig')
  .option('--palette <name>', 'which palette; the first one by default')
  .option(
    '--option <key=value>',
    'an option of the format; can be given again',
    (v: string, all: string[]) => [...all, v],
    [],
  )
  .option('--out <folder>', 'folder to write to', '.')
  .description('write the project, or something of it, as a file')
  .addHelpText('after', `\nFormats:\n${formatsHelp()}`)
  .action(exportCommand);
program
  .command('render')
  .argument('<file>', 'project file (.sphal)')
  .option('--shot <name>', 'name of the shot; the first one by default')
  .option('--size <WxH>', 'pixels; the size of the shot by default', size)
  .option('--samples <n>', 'samples a pixel; those of the shot by default', whole)
  .requiredOption('--out <file>', 'picture to write (.png)')
  .description('trace a picture of a shot')
  .action(renderCommand);

try {
  await program.parseAsync();
} catch (e) {
  if (!(e instanceof CliError)) throw e;
  console.error(`sphalerite: ${e.message}`);
  process.exitCode = 2;
}
