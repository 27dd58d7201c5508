import {
  linkedEasing,
  linkOf,
  reverseEasing,
  unlinked,
  type Easing,
  type PresetEasing,
  type Shelf,
} from '@wexikine/core';

/** A key's easing as the editor says it: one of the library by its name. */
export function saidEasing(ease: Easing): PresetEasing {
  const link = linkOf(ease);
  if (!link) return ease;
  const { id, revision, reversed } = link;
  return { type: 'curve', id, revision, is: unlinked(ease), ...(reversed === true ? { reversed } : {}) };
}

/** What was said as a key's easing; one of the library keeps its link. */
export function keyEasing(said: PresetEasing, shelf: Shelf): Easing | null {
  if (said.type === 'parameter') return null;
  if (said.type !== 'curve') return unlinked(said);
  const found = shelf.curve(said.id);
  const name = shelf.items.get(said.id)?.name;
  if (!found || name === undefined) return unlinked(said.reversed === true ? reverseEasing(said.is) : said.is);
  const link = { id: said.id, name, revision: found.revision };
  return linkedEasing(found.easing, said.reversed === true ? { ...link, reversed: true } : link);
}
