import type { CompiledPreset } from '../../formulas/preset';
import type { Override } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { frameTicks } from '../../basics/time';
import type { Finding } from '../finding';
import { problemsOf, readTime } from '../order';
import type { OverrideSources } from './batch';
import { compileVariation, type CompiledVariation } from './vary';

/** Reads what was set by hand for single layers. */
export function readOverrides(
  { overrides: given }: { readonly overrides?: Readonly<Record<string, Override>> },
  compiled: CompiledPreset,
  scene: Scene,
): { overrides: Map<string, OverrideSources>; problems: Finding[] } {
  const overrides = new Map<string, OverrideSources>();
  const problems: Finding[] = [];
  for (const [layer, { start, length, parameters }] of Object.entries(given ?? {})) {
    const times = [start, length].map((text) => (text === undefined ? null : readTime(text, scene.rate, 'By hand')));
    problems.push(...problemsOf(times));
    const sources = new Map<string, CompiledVariation>();
    for (const entry of compiled.parameters) {
      const value = parameters?.[entry.parameter.name];
      if (value === undefined) continue;
      const variation = compileVariation(entry, { by: 'fixed', value }, compiled.lookup);
      if (variation.problem) problems.push(variation.problem);
      sources.set(entry.parameter.name, variation);
    }
    overrides.set(layer, {
      start: times[0]?.ticks ?? null,
      length: times[1] === null ? null : Math.max(frameTicks(scene.rate), times[1].ticks),
      parameters: new Map([...sources].map(([name, { source }]) => [name, source])),
    });
  }
  return { overrides, problems };
}
