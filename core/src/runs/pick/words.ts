import type { Pick, PickTerm } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { alternativesOf } from './pick';

/** What the words need to know of a scene; without one, ids stand for names. */
type Names = Readonly<Partial<Scene>> | null;

function counted(count: number | null, noun: string): string {
  if (count === null) return `the ${noun}s`;
  return count === 1 ? `1 ${noun}` : `${count} ${noun}s`;
}

function layerName(names: Names, id: string): string {
  return names?.layers?.find((layer) => layer.id === id)?.name ?? id;
}

const TESTS = {
  is: 'is',
  'is-not': 'is not',
  contains: 'contains',
  above: 'is above',
  below: 'is below',
  filled: 'is filled',
  empty: 'is empty',
} as const;

/** A condition as what follows "layers": "tagged “row”", "in “Card 3”". */
export function termWords(term: PickTerm, names: Names = null): string {
  switch (term.by) {
    case 'layers':
      return term.layers.length === 1 ? `named “${layerName(names, term.layers[0])}”` : 'chosen by hand';
    case 'rule':
      return [
        term.kind === undefined ? '' : `of kind ${term.kind}`,
        term.tag === undefined ? '' : `tagged “${term.tag}”`,
        term.name === undefined ? '' : `named “${term.name}”`,
      ]
        .filter((text) => text !== '')
        .join(' ');
    case 'group':
      return `in “${layerName(names, term.group)}”`;
    case 'region':
      return 'in a part of the frame';
    case 'level':
      return `in one ${term.axis} with “${layerName(names, term.layer)}”`;
    case 'state':
      return term.state === 'keys' ? 'with keys' : 'without keys';
    case 'made':
      return `that run ${1 + (names?.runs?.findIndex(({ id }) => id === term.run) ?? -1) || term.run} keyed`;
    case 'data': {
      const value = term.test === 'filled' || term.test === 'empty' ? '' : ` ${term.value}`;
      return `whose “${term.column}” ${TESTS[term.test]}${value}`;
    }
    case 'saved':
      return `of “${names?.picks?.find(({ id }) => id === term.pick)?.name ?? term.pick}”`;
  }
}

/** "12 layers tagged “row”". `count` is the number of layers that take part; null where no scene is at hand. */
export function pickWords(pick: Pick, count: number | null, names: Names = null): string {
  if (pick.by === 'layers') return counted(count, 'layer');
  if (pick.by === 'rule') {
    const { kind, ...rest } = pick;
    return [counted(count, kind ?? 'layer'), termWords(rest, names)].filter((text) => text !== '').join(' ');
  }
  if (pick.by !== 'joined') return `${counted(count, 'layer')} ${termWords(pick, names)}`;
  const sets = alternativesOf(pick).map((terms) =>
    terms.map(({ not, is }) => (not === true ? `not ${termWords(is, names)}` : termWords(is, names))),
  );
  const isMixed = sets.length > 1 && sets.some(({ length }) => length > 1);
  return `${counted(count, 'layer')} ${sets.map((words) => words.join(' and ')).join(isMixed ? ', or ' : ' or ')}`;
}
