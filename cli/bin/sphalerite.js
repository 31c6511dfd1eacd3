#!/usr/bin/env node
import { existsSync } from 'node:fs';

const built = new URL('../dist/main.js', import.meta.url);
if (!existsSync(built)) {
  console.error('sphalerite: the command is not built yet. Run "npm run build" in the project first.');
  process.exit(2);
}
await import(built.href);
