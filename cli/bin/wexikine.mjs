#!/usr/bin/env node
import { existsSync } from 'node:fs';

const bundle = new URL('../dist/wexikine.mjs', import.meta.url);
if (existsSync(bundle)) await import(bundle);
else {
  process.stderr.write('wexikine is not built yet. Run “npm run build” in the project folder first.\n');
  process.exitCode = 1;
}
