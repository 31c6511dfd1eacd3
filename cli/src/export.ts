import { watch as watchFolder } from 'node:fs';
import { basename, dirname, join, resolve } from 'node:path';
import { type DeliveryWishes, delivered, notesOf } from './delivery';
import { CliError, openProject, writeWhole } from './io';

export interface ExportWishes extends DeliveryWishes {
  readonly out: string;
  readonly json?: boolean;
}

/** What is counted, where one of it is not said by leaving an “s” off. */
const ONE: Readonly<Record<string, string>> = { bodies: 'body', vertices: 'vertex' };

export async function exportCommand(file: string, wishes: ExportWishes): Promise<void> {
  const { made } = await delivered(file, openProject(file), wishes);
  const notes = notesOf(made);
  // Everything stands before the first file is written.
  for (const { name, bytes } of made.files) writeWhole(join(wishes.out, name), bytes);
  if (wishes.json) {
    const formats = made.formats.map(({ exporter, colourway, files, counts }) => ({
      format: exporter,
      colourway: colourway || null,
      files: files.map((f) => ({ name: f.name, bytes: f.bytes.length })),
      counts,
    }));
    console.log(JSON.stringify({ out: resolve(wishes.out), formats, notes }, null, 2));
    return;
  }
  for (const n of notes) console.error(`note: ${n}`);
  for (const { files, counts } of made.formats) {
    const figures = Object.entries(counts).map(
      ([what, n]) => `${n.toLocaleString('en')} ${n === 1 ? (ONE[what] ?? what.replace(/s$/, '')) : what}`,
    );
    for (const { name, bytes } of files)
      console.log(`${join(wishes.out, name)}: ${[...figures, `${Math.ceil(bytes.length / 1024)} KB`].join(', ')}`);
  }
}

/** How long a file must rest before it is read again: whoever saves it writes several times. */
const REST = 150;

/** Exports once, and again whenever the file changes, until it is stopped. What cannot be read is told and waited out. */
export async function watchCommand(file: string, wishes: ExportWishes): Promise<void> {
  await exportCommand(file, wishes);
  console.error(`Watching ${file}. Stop with Ctrl+C.`);
  let timer: ReturnType<typeof setTimeout> | undefined,
    running = Promise.resolve();
  const again = async (): Promise<void> => {
    try {
      await exportCommand(file, wishes);
    } catch (e) {
      if (!(e instanceof CliError)) throw e;
      console.error(`sphalerite: ${e.message}`);
    }
  };
  await new Promise<void>((stop) => {
    // The folder, for a file that is written beside and renamed is another one each time.
    const watcher = watchFolder(dirname(resolve(file)), (_event, name) => {
      if (name !== basename(file)) return;
      clearTimeout(timer);
      timer = setTimeout(() => (running = running.then(again)), REST);
    });
    for (const signal of ['SIGINT', 'SIGTERM'] as const)
      process.once(signal, () => {
        watcher.close();
        clearTimeout(timer);
        void running.then(stop);
      });
  });
}
