import fc from 'fast-check';
import { describe, expect, test } from '@jest/globals';
import { edited, layerOf } from '../../testing/planning';
import { card, sceneOf } from '../../testing/scenes';
import { matchTable, nameColumn, readTable, writeTable, type Table } from '.';

const scene = sceneOf([
  card('a', { name: 'Ada', data: { score: '1' } }),
  card('b', { name: 'Ben' }),
  card('c', { name: 'Ben' }),
  card('d', { name: 'Cleo' }),
]);
const all = ['a', 'b', 'c', 'd'];

function tableOf(text: string): Table {
  const read = readTable(text);
  if (!read.ok) throw new Error(read.message);
  return read.table;
}

describe('tables', () => {
  test('are read from the clipboard of a spreadsheet and from CSV (RFC 4180)', () => {
    expect(tableOf('name\tscore\nAda\t4\n')).toEqual({ columns: ['name', 'score'], rows: [['Ada', '4']] });
    expect(tableOf('\uFEFFname,say\r\n"Ada","a ""b"", c"\r\n')).toEqual({
      columns: ['name', 'say'],
      rows: [['Ada', 'a "b", c']],
    });
  });

  test('columns without a name, or with the same one, get one of their own; short rows are filled', () => {
    expect(tableOf('a,,a\n1')).toEqual({ columns: ['a', 'Column 2', 'a 2'], rows: [['1', '', '']] });
  });

  test('come back as they were written', () => {
    const table = {
      columns: ['a', 'b'],
      rows: [
        ['x "y"', 'one\ntwo'],
        ['', ';'],
      ],
    };
    expect(tableOf(writeTable(table))).toEqual(table);
  });

  test.each([
    ['', 'nothing here'],
    ['only,names', 'only one line'],
    ['a,b\n"open,1', 'not closed'],
  ])('%j says what is wrong', (text, expected) => {
    const read = readTable(text);
    expect(!read.ok && read.message).toContain(expected);
  });
});

test('a table has at most 20,000 rows and 100 columns', () => {
  const rows = (count: number): string => `a,b\n${'1,2\n'.repeat(count)}`.trimEnd();
  const columns = (count: number): string => `${Array.from({ length: count }, (_, i) => `c${i}`).join()}\n1`;
  expect([readTable(rows(20_000)).ok, readTable(columns(100)).ok]).toEqual([true, true]);
  expect(readTable(rows(20_001))).toMatchObject({
    message: 'There are 20001 rows; at most 20000 can be taken at once.',
  });
  expect(readTable(columns(101))).toMatchObject({
    message: 'There are 101 columns; at most 100 can be taken at once.',
  });
});

describe('matching', () => {
  const table = tableOf('who,score,team\nada,9,North\nBen,7,\nDora,3,South');

  test('by name, with a report of what did not match', () => {
    expect(nameColumn(table, scene)).toBe('who');
    const matched = matchTable(table, scene, all, { by: 'name', column: 'who' });
    expect(matched).toMatchObject({ layers: 3, rowsLeft: ['Dora'], layersLeft: ['Cleo'], shared: ['Ben'] });
    const after = edited(scene, matched.edits);
    expect(layerOf(after, 'a').data).toEqual({ score: '9', team: 'North' });
    expect(layerOf(after, 'b').data).toEqual({ score: '7' });
    expect(layerOf(after, 'c').data).toEqual({ score: '7' });
  });

  test('by order, with what is left over on either side', () => {
    const matched = matchTable(table, scene, ['b', 'd'], { by: 'order' });
    expect(matched).toMatchObject({ layers: 2, rowsLeft: ['row 3'], layersLeft: [] });
    expect(matchTable(table, scene, ['b'], { by: 'order' }).rowsLeft).toEqual(['row 2', 'row 3']);
    expect(matchTable(table, scene, all, { by: 'order' })).toMatchObject({ layers: 3, layersLeft: ['Cleo'] });
  });

  test('no column names a layer', () => expect(nameColumn(tableOf('x\n1'), scene)).toBeNull());
});

test('no cell is a formula to a spreadsheet, and every text reads back as it was', () => {
  fc.assert(
    fc.property(
      fc.array(fc.array(fc.stringMatching(/^['=+@\-a-z0-9.]{0,6}$/), { minLength: 2, maxLength: 2 }), { minLength: 1 }),
      (rows) => {
        const filled = [['a', 'b'], ...rows.filter((row) => row.some((cell) => cell !== ''))];
        if (filled.length < 2) return;
        const [columns, ...cells] = filled;
        const text = writeTable({ columns, rows: cells });
        expect(readTable(text)).toEqual({ ok: true, table: { columns, rows: cells } });
        for (const cell of text.split(/[,\r\n]/)) {
          if (/^"?[=+@-]/.test(cell)) expect(Number(cell)).not.toBeNaN();
        }
      },
    ),
  );
});
