import { pickLayers, type Pick, type PickTerm, type Scene } from '@wexikine/core';

export type TermKind = PickTerm['by'];

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
  const first = (wanted: (kind: string) => boolean): string =>
    scene.layers.find((layer) => wanted(layer.kind))?.id ?? 'none';
  switch (kind) {
    case 'rule':
      return { by: 'rule' };
    case 'layers':
      return { by: 'layers', layers: pickLayers(scene, pick).map((index) => scene.layers[index].id) };
    case 'group':
      return { by: 'group', group: first((layer) => layer === 'group') };
    case 'level':
      return { by: 'level', layer: first((layer) => layer !== 'guide'), axis: 'row' };
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
