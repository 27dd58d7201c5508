import { expect, test } from '@jest/globals';
import { countsWords } from './counts-words';

type Given = Parameters<typeof countsWords>[0];

function words(counts: Partial<Given['counts']>, run: object | null = null, isChange = false): string {
  const none = { layers: 1, added: 0, replaced: 0, removed: 0, kept: 0 };
  return countsWords({ counts: { ...none, ...counts }, run: run as Given['run'] }, isChange);
}

test('a dry run is counted in words, one and many', () => {
  expect(words({ added: 48, replaced: 12, removed: 3, kept: 1 })).toBe(
    'Dry run: +48 keys, 12 replaced, −3; 1 key stays',
  );
  const of = (operation: string) => ({ recipe: { operation } });
  expect(words({ layers: 12, kept: 108 }, of('line-up'))).toBe('Dry run: 12 layers lined up');
  expect(words({ layers: 1, kept: 3 }, of('arrange'))).toBe('Dry run: 1 layer arranged');
  expect(words({ removed: 36, kept: 1 }, of('clear'))).toBe('Dry run: 36 keys cleared; 1 key stays');
  expect(words({ layers: 1 }, { rig: {} })).toBe('Dry run: 1 layer rigged, no keys');
  expect(words({ replaced: 1 }, { recipe: { operation: 'adjust' } })).toBe('Dry run: 1 key adjusted');
  expect(words({ replaced: 36, added: 12, kept: 4 }, { recipe: { operation: 'adjust' } })).toBe(
    'Dry run: 36 keys adjusted, +12; 4 keys stay',
  );
});

test('thousands are set apart', () => {
  expect(words({ added: 2700, replaced: 1200, removed: 1e6, kept: 3000 })).toBe(
    'Dry run: +2,700 keys, 1,200 replaced, −1,000,000; 3,000 keys stay',
  );
});

test('of a run that is changed no keys are added: they are made anew', () => {
  expect(words({ added: 48, kept: 2 }, null, true)).toBe('Dry run: 48 keys made anew; 2 keys stay');
  expect(words({ added: 1, replaced: 3 }, null, true)).toBe('Dry run: 1 key made anew, 3 replaced');
  const multiply = { recipe: { operation: 'multiply' } };
  expect(words({ layers: 8, added: 16 }, multiply)).toBe('Dry run: 8 copies, +16 keys');
  expect(words({ layers: 8, added: 16 }, multiply, true)).toBe('Dry run: 8 copies, 16 keys made anew');
});
