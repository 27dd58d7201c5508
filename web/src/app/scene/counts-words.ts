import { counted, type DryRun } from '@wexikine/core';

/** A number as one reads it: 2,700. */
function said(count: number): string {
  return count.toLocaleString('en');
}

/**
 * What a dry run does, counted: "Dry run: +48 keys, 12 replaced; 36 keys stay". Of a run that is there and is changed, the
 * keys are not more than before: "Dry run: 48 keys made anew".
 */
export function countsWords({ counts, run }: Pick<DryRun, 'counts' | 'run'>, isChange = false): string {
  const { layers, added, replaced, removed, kept } = counts;
  const made = isChange ? `${counted(added, 'key')} made anew` : `+${counted(added, 'key')}`;
  const stay = kept === 0 ? '' : `; ${counted(kept, 'key stays', 'keys stay')}`;
  if (run?.rig) return `Dry run: ${counted(layers, 'layer')} rigged, no keys`;
  if (run?.recipe.operation === 'style') return `Dry run: ${counted(layers, 'layer')} styled`;
  if (run?.recipe.operation === 'pass-on' && added === 0) return `Dry run: passed on to ${counted(layers, 'layer')}`;
  if (run?.recipe.operation === 'multiply') return `Dry run: ${counted(layers, 'copy', 'copies')}, ${made}`;
  // Layers are put or timed elsewhere, and their keys go with them.
  if (run?.recipe.operation === 'line-up') return `Dry run: ${counted(layers, 'layer')} lined up`;
  if (run?.recipe.operation === 'arrange') return `Dry run: ${counted(layers, 'layer')} arranged`;
  if (run?.recipe.operation === 'clear') return `Dry run: ${counted(removed, 'key')} cleared${stay}`;
  const isAdjusted = run?.recipe.operation === 'adjust';
  const parts = isAdjusted
    ? [`${counted(replaced, 'key')} adjusted`, ...(added > 0 ? [`+${said(added)}`] : [])]
    : [made, ...(replaced > 0 ? [`${said(replaced)} replaced`] : [])];
  return `Dry run: ${[...parts, ...(removed > 0 ? [`−${said(removed)}`] : [])].join(', ')}${stay}`;
}
