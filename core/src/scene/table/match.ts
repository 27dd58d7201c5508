import type { Edit } from '../edit';
import type { Layer } from '../layer';
import type { Scene } from '../scene';
import type { Table } from './table';

/** How rows find their layers: by a column with their names, or one after the other. */
export type MatchBy = { readonly by: 'name'; readonly column: string } | { readonly by: 'order' };

/** What a table gives to a scene, and what did not match. */
export interface Matched {
  readonly edits: readonly Edit[];
  readonly layers: number;
  /** Rows without a layer: by what they name, or their number. */
  readonly rowsLeft: readonly string[];
  /** Layers among the picked that no row names. */
  readonly layersLeft: readonly string[];
  /** Names that several layers have; all of them take the row. */
  readonly shared: readonly string[];
}

function sameName(a: string, b: string): boolean {
  return a.trim().localeCompare(b.trim(), 'en', { sensitivity: 'accent' }) === 0;
}

function dataOf(table: Table, row: readonly string[], skip: number): Layer['data'] {
  const cells = table.columns.map((column, i) => [column, row[i]] as const).filter((_, i) => i !== skip);
  return Object.fromEntries(cells.filter(([, cell]) => cell !== ''));
}

function withData(layer: Layer, data: Layer['data']): Edit {
  return { type: 'set-layer', layer: layer.id, fields: { data: { ...layer.data, ...data } } };
}

function matchByOrder(table: Table, layers: readonly Layer[]): Matched {
  const count = Math.min(layers.length, table.rows.length);
  return {
    edits: layers.slice(0, count).map((layer, i) => withData(layer, dataOf(table, table.rows[i], -1))),
    layers: count,
    rowsLeft: table.rows.slice(count).map((_, i) => `row ${count + i + 1}`),
    layersLeft: layers.slice(count).map(({ name }) => name),
    shared: [],
  };
}

function matchByName(table: Table, layers: readonly Layer[], column: string): Matched {
  const at = table.columns.indexOf(column);
  const edits: Edit[] = [];
  const rowsLeft: string[] = [];
  const shared: string[] = [];
  const found = new Set<string>();
  for (const row of table.rows) {
    const own = layers.filter(({ name }) => sameName(name, row[at] ?? ''));
    if (own.length === 0) rowsLeft.push(row[at] ?? '');
    if (own.length > 1) shared.push(own[0].name);
    for (const layer of own) {
      found.add(layer.id);
      edits.push(withData(layer, dataOf(table, row, at)));
    }
  }
  const layersLeft = layers.filter(({ id }) => !found.has(id)).map(({ name }) => name);
  return { edits, layers: found.size, rowsLeft, layersLeft, shared };
}

/** Puts a table's columns onto layers, as data; cells that are empty leave what is there. Changes nothing itself. */
export function matchTable(table: Table, scene: Scene, picked: readonly string[], match: MatchBy): Matched {
  const wanted = new Set(picked);
  const layers = scene.layers.filter(({ id }) => wanted.has(id));
  return match.by === 'order' ? matchByOrder(table, layers) : matchByName(table, layers, match.column);
}

/** The column of a table whose cells name most layers; null where none does. */
export function nameColumn(table: Table, scene: Scene): string | null {
  const names = new Set(scene.layers.map(({ name }) => name.trim().toLocaleLowerCase('en')));
  const hits = table.columns.map(
    (_, i) => table.rows.filter((row) => names.has(row[i].toLocaleLowerCase('en'))).length,
  );
  const most = Math.max(0, ...hits);
  return most === 0 ? null : table.columns[hits.indexOf(most)];
}
