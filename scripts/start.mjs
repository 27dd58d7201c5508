import { build } from './build.mjs';
import { installIfNeeded } from './steps.mjs';

installIfNeeded({ forTests: false });
await build();
await import('../server/dist/main.js');
