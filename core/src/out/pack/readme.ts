import type { Parameter } from '../../formulas/preset';
import { frontOf, referencesOf, type ItemKind, type ItemRecord, type LibraryItem } from '../../library/library';

const HEADINGS: Readonly<Record<ItemKind, string>> = {
  preset: 'Presets',
  rig: 'Rigs',
  look: 'Looks',
  palette: 'Palettes',
  curve: 'Curves',
  house: 'House values',
  recipe: 'Recipes',
};

function stateWords({ retired, revisions, draft }: ItemRecord): string {
  if (revisions.length === 0) return draft?.inReview === true ? 'in review' : 'draft';
  return `${retired ? 'retired, ' : ''}revision ${revisions.length}`;
}

function parametersIn(item: LibraryItem): readonly Parameter[] {
  if (item.kind === 'rig') return item.body.dials;
  return item.kind === 'preset' || item.kind === 'look' ? (item.body.parameters ?? []) : [];
}

function parameterLines(item: LibraryItem): string[] {
  return parametersIn(item).map(({ name, label, default: standard, note }) => {
    const tail = note === '' ? '' : `: ${note}`;
    return `- ${label} (\`@${name}\`, ${standard})${tail}`;
  });
}

function entryLines(record: ItemRecord, names: ReadonlyMap<string, string>): string[] {
  const item = frontOf(record);
  const needs = [...new Set(referencesOf(item).map(({ id }) => names.get(id) ?? id))];
  const phase = item.kind === 'preset' ? `${item.body.phase}, ` : '';
  return [
    `### ${item.name}`,
    '',
    `_${phase}${stateWords(record)}, by ${item.author}_`,
    '',
    ...(item.note === '' ? [] : [item.note, '']),
    ...(parameterLines(item).length > 0 ? [...parameterLines(item), ''] : []),
    ...(needs.length > 0 ? [`Takes from: ${needs.join(', ')}.`, ''] : []),
  ];
}

/** The readme of a pack, from the items' own notes. */
export function readmeOf(records: readonly ItemRecord[]): string {
  const names = new Map(records.map((record) => [record.id, frontOf(record).name]));
  const sections = (Object.keys(HEADINGS) as ItemKind[]).flatMap((kind) => {
    const own = records.filter((record) => record.kind === kind);
    if (own.length === 0) return [];
    return [`## ${HEADINGS[kind]}`, '', ...own.flatMap((record) => entryLines(record, names))];
  });
  const intro = `A pack of ${records.length} library ${records.length === 1 ? 'item' : 'items'} for Wexikine. Import it in the library.`;
  return ['# Animation presets', '', intro, '', ...sections].join('\n');
}
