import {
  comparePresets,
  presetSchema,
  waitingUpdate,
  type Difference,
  type RunRecord,
  type Shelf,
} from '@wexikine/core';

/** What differs between the preset that a run used and the one that the library has now; none where it cannot be read. */
export function updateDifferences({ preset }: RunRecord, shelf: Shelf): readonly Difference[] {
  const newest = preset && shelf.preset(preset.id);
  const read = preset && presetSchema.safeParse(preset.body);
  if (!newest || !read?.success) return [];
  return comparePresets(read.data, newest.body, (id) => shelf.items.get(id)?.name ?? id);
}

/** A difference in words: "Lasts: 20f → 24f". */
export function differenceWords({ what, before, after }: Difference): string {
  if (before === null) return `${what}: ${after ?? ''}, new`;
  return after === null ? `${what}: ${before}, gone` : `${what}: ${before} → ${after}`;
}

/** What an update brings, before one opens it: who published it said so, or else how much differs. */
export function updateWords(run: RunRecord, shelf: Shelf): string {
  const update = waitingUpdate(run, shelf);
  if (!update) return '';
  if (!run.preset) return `Revision ${update.to} of what it uses`;
  if (update.to === update.from) return 'A curve or house value that it uses has changed';
  const summary = shelf.items.get(run.preset.id)?.summary ?? '';
  const differences = updateDifferences(run, shelf);
  const [first] = differences;
  const what = summary !== '' ? summary : first ? differenceWords(first) : 'no difference in what it does';
  const more = summary === '' && differences.length > 1 ? `, and ${differences.length - 1} more` : '';
  return `Revision ${update.to}: ${what}${more}`;
}
