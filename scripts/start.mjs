import { buildRestIfChanged, buildServerIfChanged } from './build.mjs';
import { installIfNeeded } from './steps.mjs';

installIfNeeded({ forTests: false });
await buildServerIfChanged();
// A new data folder is filled while the page is built.
const { serve } = await import('../server/dist/serve.js');
await serve(buildRestIfChanged({ checksTypes: false }));
