import {
  createShelf,
  draftOf,
  findCircle,
  frontOf,
  lookPreset,
  referencesOf,
  revisionOf,
  type ItemRecord,
  type LibraryItem,
  type Reference,
  type Shelf,
} from '../../library/library';
import { compileRig } from '../../formulas/rig';
import {
  compilePreset,
  describePresetProblem,
  movementEase,
  movementLabel,
  type PresetEasing,
} from '../../formulas/preset';
import { allReferences } from './pack';
import type { PackProblem } from './problem';

/** A shelf of the newest of each, drafts where nothing is published; later records count over earlier ones. */
export function shelfOf(records: readonly ItemRecord[]): Shelf {
  return createShelf(records.map(frontOf));
}

const WANTED: Readonly<Record<Reference['use'], string>> = {
  default: 'a house value or a curve',
  easing: 'a curve',
  follows: 'a house value of the same type',
  matches: 'an entrance',
  preset: 'a preset',
  rig: 'a rig',
  look: 'a look',
  palette: 'a palette',
};

function isFit(use: Reference['use'], item: LibraryItem, own: LibraryItem): boolean {
  switch (use) {
    case 'default':
      return item.kind === 'house' || item.kind === 'curve';
    case 'easing':
      return item.kind === 'curve' || (item.kind === 'house' && item.body.type === 'curve');
    case 'follows':
      return item.kind === 'house' && own.kind === 'house' && item.body.type === own.body.type;
    case 'preset':
    case 'rig':
    case 'look':
    case 'palette':
      return item.kind === use;
    case 'matches':
      return item.kind === 'preset' && item.body.phase === 'entrance';
  }
}

function referenceProblems(item: LibraryItem, known: ReadonlyMap<string, ItemRecord>): PackProblem[] {
  return referencesOf(item).flatMap(({ id, use, where }): PackProblem[] => {
    const record = known.get(id);
    if (!record) return use === 'matches' ? [] : [{ code: 'missing-reference', item: item.name, where, id }];
    if (isFit(use, frontOf(record), item)) return [];
    return [{ code: 'wrong-reference', item: item.name, where, wanted: WANTED[use] }];
  });
}

function revisionProblems(item: LibraryItem, known: ReadonlyMap<string, ItemRecord>): PackProblem[] {
  if (item.kind !== 'preset') return [];
  const eases: [PresetEasing | null, string][] = [
    ...item.body.rows.flatMap(({ channel, cells }) =>
      cells.map(({ ease, moment }): [PresetEasing, string] => [ease, `${channel} after ${moment}`]),
    ),
    ...(item.body.movements ?? []).map((movement): [PresetEasing | null, string] => [
      movementEase(movement),
      movementLabel(movement),
    ]),
  ];
  return eases.flatMap(([ease, where]): PackProblem[] => {
    if (ease?.type !== 'curve') return [];
    const record = known.get(ease.id);
    if (!record || ease.revision <= Math.max(1, record.revisions.length)) return [];
    const { id, revision } = ease;
    return [{ code: 'unknown-revision', item: item.name, where, id, revision }];
  });
}

/** The first formula of an item that cannot be worked out, so that it cannot be published; none where all can. */
export function formulaProblem(item: LibraryItem, shelf: Shelf): PackProblem[] {
  if (item.kind === 'rig') {
    const [first] = compileRig(item.body).problems;
    return first ? [brokenFormula(item, `The formula for ${first.channel}: ${first.message}`)] : [];
  }
  if (item.kind !== 'preset' && item.kind !== 'look') return [];
  const result = compilePreset(item.kind === 'look' ? lookPreset(item.body) : item.body, shelf);
  if (result.ok) return [];
  return [brokenFormula(item, describePresetProblem(result.problems[0]))];
}

function brokenFormula({ name, revision }: LibraryItem, reason: string): PackProblem {
  return { code: 'broken-formula', item: name, revision: `r${revision}`, reason };
}

function circleProblems(records: readonly ItemRecord[], known: ReadonlyMap<string, ItemRecord>): PackProblem[] {
  const referred = (id: string): string[] => {
    const record = known.get(id);
    return record ? allReferences(record).map((one) => one.id) : [];
  };
  const circle = findCircle(
    records.map(({ id }) => id),
    referred,
  );
  return circle ? [{ code: 'circle', items: circle }] : [];
}

/** Every problem of how records hang together, with each other and with what is here already. Drafts may be unfinished. */
export function checkRecords(records: readonly ItemRecord[], here: readonly ItemRecord[]): PackProblem[] {
  const all = [...here, ...records];
  const known = new Map(all.map((record) => [record.id, record]));
  const circles = circleProblems(records, known);
  if (circles.length > 0) return circles;
  const shelf = shelfOf(all);
  return records.flatMap((record) => {
    const published = record.revisions.map(({ revision }) => revisionOf(record, revision) as LibraryItem);
    const draft = draftOf(record);
    return [
      ...[...published, ...(draft ? [draft] : [])].flatMap((item) => [
        ...referenceProblems(item, known),
        ...revisionProblems(item, known),
      ]),
      ...published.flatMap((item) => formulaProblem(item, shelf)),
    ];
  });
}
