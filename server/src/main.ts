import { existsSync } from 'node:fs';
import { resolve } from 'node:path';
import { fileURLToPath } from 'node:url';
import { parseArgs } from 'node:util';
import { createApp } from './app';

const { values } = parseArgs({
  options: {
    port: { type: 'string', default: process.env['PORT'] ?? '4173' },
    host: { type: 'string', default: '127.0.0.1' },
    site: { type: 'string', default: fileURLToPath(new URL('../../app/dist/', import.meta.url)) },
  },
});
const folder = `${resolve(values.site)}/`;
if (!existsSync(`${folder}index.html`)) {
  console.error('The application is not built yet. Run "npm run build" first.');
  process.exit(2);
}
const wanted = Number(values.port);
if (!Number.isInteger(wanted) || wanted < 0 || wanted > 65535) {
  console.error(`"${values.port}" is not a port; give a number from 1 to 65535.`);
  process.exit(2);
}

function listen(port: number, tries: number): void {
  const server = createApp(folder).listen(port, values.host, (error?: Error) => {
    if (error) return;
    const address = server.address();
    console.log(
      `Sphalerite stands ready: http://${values.host}:${typeof address === 'object' && address ? address.port : port}/`,
    );
  });
  server.on('error', (e: NodeJS.ErrnoException) => {
    if (e.code === 'EADDRINUSE' && tries > 0) {
      console.log(`Port ${port} is taken; trying ${port + 1}.`);
      listen(port + 1, tries - 1);
      return;
    }
    console.error(`The server cannot start: ${e.message}`);
    process.exit(1);
  });
}
listen(wanted, 20);
