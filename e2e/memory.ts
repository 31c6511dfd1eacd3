import { execFileSync } from 'node:child_process';

/** Bytes that the largest page of a browser of this machine has in memory, its workers and software drawing included. */
export function memoryOf(): number {
  const lines = execFileSync('ps', ['-eo', 'rss,args'], { encoding: 'utf8' }).split('\n');
  const pages = lines.filter((l) => l.includes('--type=renderer')).map((l) => Number(l.trim().split(' ')[0]) * 1024);
  return Math.max(0, ...pages);
}
