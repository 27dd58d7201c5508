import {
  isSeen,
  pickLayers,
  type JoinedTerm,
  type LayerKind,
  type Pick,
  type PickTerm,
  type Scene,
} from '@wexikine/core';

/** How a condition is joined to the one before it. */
export type Join = 'and' | 'or';

/** A condition of the editor: joined to the one before, as it is or turned round. */
export interface Term {
  readonly join: Join;
  readonly isNot: boolean;
  readonly is: PickTerm;
}

/** The conditions of a pick, one by one. */
export function editorTerms(pick: Pick): Term[] {
  if (pick.by !== 'joined') return [{ join: 'and', isNot: false, is: pick }];
  return pick.terms.map(({ or, not, is }) => ({
    join: pick.how === 'any' || or === true ? 'or' : 'and',
    isNot: not === true,
    is,
  }));
}

/** The pick that conditions say; the first one's join counts for nothing. */
export function pickOfTerms(terms: readonly Term[]): Pick {
  const [first, ...others] = terms;
  if (others.length === 0 && !first.isNot) return first.is;
  const isAny = others.length > 0 && others.every(({ join }) => join === 'or');
  const joined = terms.map(({ join, isNot, is }, i): JoinedTerm => {
    const isOr = join === 'or' && i > 0 && !isAny;
    return { ...(isOr ? { or: true } : {}), ...(isNot ? { not: true } : {}), is };
  });
  return { by: 'joined', how: isAny ? 'any' : 'all', terms: joined };
}

/** A kind of condition. */
export type TermKind = PickTerm['by'];

/** The kinds of conditions, to be chosen from. */
export const TERM_KINDS: readonly { readonly value: TermKind; readonly label: string }[] = [
  { value: 'rule', label: 'by tag, name and kind' },
  { value: 'layers', label: 'ticked in the run sheet' },
  { value: 'group', label: 'in a group' },
  { value: 'level', label: 'in one row or column' },
  { value: 'region', label: 'in a part of the frame' },
  { value: 'state', label: 'with or without keys' },
  { value: 'made', label: 'that a run keyed' },
  { value: 'data', label: 'by a data column' },
  { value: 'saved', label: 'of a kept pick' },
];

/** What a condition of a kind begins with in a scene; ticked layers begin with those that are picked now. */
export function beginTerm(kind: TermKind, scene: Scene, pick: Pick): PickTerm {
  const first = (wanted: (kind: LayerKind) => boolean): string =>
    scene.layers.find((layer) => wanted(layer.kind))?.id ?? 'none';
  switch (kind) {
    case 'rule':
      return { by: 'rule' };
    case 'layers':
      return { by: 'layers', layers: pickLayers(scene, pick).map((index) => scene.layers[index].id) };
    case 'group':
      return { by: 'group', group: first((layer) => layer === 'group') };
    case 'level':
      return { by: 'level', layer: first((kind) => isSeen({ kind })), axis: 'row' };
    case 'region':
      return { by: 'region', left: 0, top: 0, right: 0.5, bottom: 1 };
    case 'state':
      return { by: 'state', state: 'no-keys' };
    case 'made':
      return { by: 'made', run: scene.runs[0]?.id ?? 'none' };
    case 'data':
      return {
        by: 'data',
        column: Object.keys(scene.layers.find(({ data }) => Object.keys(data).length > 0)?.data ?? {})[0] ?? 'none',
        test: 'filled',
        value: '',
      };
    case 'saved':
      return { by: 'saved', pick: scene.picks?.[0]?.id ?? 'none' };
  }
}
