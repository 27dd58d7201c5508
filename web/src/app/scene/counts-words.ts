import type { DryRun } from '@wexikine/core';

function many(count: number, one: string, more: string): string {
  return count === 1 ? one : `${count} ${more}`;
}

/** What a dry run does, counted: "Dry run: +48 keys, 12 replaced; 36 keys stay". */
export function countsWords({ counts, run }: Pick<DryRun, 'counts' | 'run'>): string {
  const { layers, added, replaced, removed, kept } = counts;
  if (run?.rig) return `Dry run: ${many(layers, '1 layer', 'layers')} rigged, no keys`;
  if (run?.recipe.operation === 'style') return `Dry run: ${many(layers, '1 layer', 'layers')} styled`;
  if (run?.recipe.operation === 'pass-on' && added === 0)
    return `Dry run: passed on to ${many(layers, '1 layer', 'layers')}`;
  if (run?.recipe.operation === 'multiply') return `Dry run: ${many(layers, '1 copy', 'copies')}, +${added} keys`;
  const isAdjusted = run?.recipe.operation === 'adjust';
  const parts = isAdjusted
    ? [`${many(replaced, '1 key', 'keys')} adjusted`, ...(added > 0 ? [`+${added}`] : [])]
    : [`+${added} keys`, ...(replaced > 0 ? [`${replaced} replaced`] : [])];
  const stay = kept === 0 ? '' : `; ${many(kept, '1 key stays', 'keys stay')}`;
  return `Dry run: ${[...parts, ...(removed > 0 ? [`−${removed}`] : [])].join(', ')}${stay}`;
}
