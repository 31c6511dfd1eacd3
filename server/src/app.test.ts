import { mkdtempSync, mkdirSync, writeFileSync } from 'node:fs';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { request } from 'node:http';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from './app';

let server: Server;
let port = 0;
beforeAll(async () => {
  const outer = mkdtempSync(join(tmpdir(), 'serve-'));
  const folder = `${outer}/site/`;
  mkdirSync(`${folder}assets`, { recursive: true });
  writeFileSync(`${folder}index.html`, '<title>bench</title>');
  writeFileSync(`${folder}assets/a.js`, 'export {}');
  writeFileSync(`${outer}/secret.txt`, 'secret');
  server = createApp(folder).listen(0, '127.0.0.1');
  await new Promise((r) => server.once('listening', r));
  port = (server.address() as AddressInfo).port;
});
afterAll(() => new Promise((r) => server.close(r)));

/** A request whose path goes out exactly as written. */
const get = (
  path: string,
  accept = 'text/html',
): Promise<{ status: number; body: string; headers: Record<string, unknown> }> =>
  new Promise((resolve, reject) => {
    request({ port, host: '127.0.0.1', path, headers: { accept } }, (res) => {
      let body = '';
      res.on('data', (d) => (body += d));
      res.on('end', () => resolve({ status: res.statusCode ?? 0, body, headers: res.headers }));
    })
      .on('error', reject)
      .end();
  });

describe('server', () => {
  it('gives the page for every address of the application', async () => {
    for (const path of ['/', '/project/abc', '/project/abc/build']) expect((await get(path)).body).toContain('bench');
  });
  it('keeps to itself: a policy without unsafe scripts, isolation for workers, no word of what it runs on', async () => {
    const { headers } = await get('/');
    // WebAssembly, which packs and unpacks meshes, has a word of its own; nothing else is made of text.
    expect(headers['content-security-policy']).toContain("script-src 'self' 'wasm-unsafe-eval';");
    expect(headers['content-security-policy']).not.toMatch(/script-src[^;]* 'unsafe/);
    expect(headers['cross-origin-opener-policy']).toBe('same-origin');
    expect(headers['cross-origin-embedder-policy']).toBe('require-corp');
    expect(headers['x-powered-by']).toBeUndefined();
  });
  it('serves built files for long and says plainly when one is not there', async () => {
    const a = await get('/assets/a.js');
    expect(a.headers['cache-control']).toContain('immutable');
    expect((await get('/assets/none.js')).status).toBe(404);
    expect((await get('/nothing.json', 'application/json')).status).toBe(404);
    for (const path of ['/content/none.sphal', '/assets/deeper/none', '/project/a/b/c', '/anything']) {
      const { status, body } = await get(path);
      expect([path, status, body]).toEqual([path, 404, 'There is nothing here.']);
    }
  });
  it('no path leads out of its folder', async () => {
    for (const path of [
      '/../secret.txt',
      '/assets/../../secret.txt',
      '/%2e%2e/secret.txt',
      '/assets/%2e%2e%2f%2e%2e%2fsecret.txt',
      '/..%5csecret.txt',
      '//etc/passwd',
    ]) {
      expect((await get(path, 'text/plain')).body, path).not.toContain('secret');
      expect((await get(path)).body, path).not.toMatch(/secret|root:/);
    }
  });
});
