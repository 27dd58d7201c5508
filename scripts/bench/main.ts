import type { Scene } from '@wexikine/core';
import { benchAdjust } from './adjust';
import { benchChecking } from './checking';
import { benchFormulas } from './formulas';
import { benchLibrary } from './library';
import { verdict } from './measure';
import { reportMachine } from './machine';
import { benchPlanning } from './planning';
import { benchRigs } from './rigs';
import { benchRuns, sceneWithRuns } from './runs';
import { benchSampling } from './sampling';
import { benchSaving } from './saving';
import { SIZES } from './scenes';
import { benchScreen } from './screen';

const PARTS: Readonly<Record<string, () => unknown>> = {
  sampling: benchSampling,
  formulas: benchFormulas,
  planning: benchPlanning,
  runs: benchRuns,
  rigs: benchRigs,
  adjust: benchAdjust,
  checking: benchChecking,
  saving: () => benchSaving(SIZES),
  library: benchLibrary,
};

/** A part may be measured alone, also one of the screen: `npm run bench -- rigs`, `npm run bench -- keys`. */
const [, , part] = process.argv;
const large = (): Scene => sceneWithRuns(10_000, 'replace');
await reportMachine('before');
for (const [name, measure] of Object.entries(PARTS)) if (part === undefined || part === name) await measure();
if (part === undefined || !(part in PARTS)) await benchScreen(large, part);
await reportMachine('after');
process.exitCode = verdict();
