import { expect, test } from '@jest/globals';
import { countsWords } from './counts-words';

type Given = Parameters<typeof countsWords>[0];

function words(counts: Partial<Given['counts']>, run: object | null = null): string {
  const none = { layers: 1, added: 0, replaced: 0, removed: 0, kept: 0 };
  return countsWords({ counts: { ...none, ...counts }, run: run as Given['run'] });
}

test('a dry run is counted in words, one and many', () => {
  expect(words({ added: 48, replaced: 12, removed: 3, kept: 1 })).toBe(
    'Dry run: +48 keys, 12 replaced, −3; 1 key stays',
  );
  expect(words({ layers: 1 }, { rig: {} })).toBe('Dry run: 1 layer rigged, no keys');
  expect(words({ replaced: 1 }, { recipe: { operation: 'adjust' } })).toBe('Dry run: 1 key adjusted');
  expect(words({ replaced: 36, added: 12, kept: 4 }, { recipe: { operation: 'adjust' } })).toBe(
    'Dry run: 36 keys adjusted, +12; 4 keys stay',
  );
});
