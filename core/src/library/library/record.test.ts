import { describe, expect, test } from '@jest/globals';
import { STARTER_LIBRARY } from '../starter';
import {
  draftOf,
  frontOf,
  inPresentWords,
  itemRecordSchema,
  recordOf,
  revisionOf,
  type HouseValue,
  type ItemRecord,
} from '.';

const item = STARTER_LIBRARY.find(({ kind }) => kind === 'house') as (typeof STARTER_LIBRARY)[number];
const whole = recordOf(item);
const [first] = whole.revisions;

/** The same item with some published revisions and a draft of these values. */
function record(published: readonly HouseValue[], draft: HouseValue | null, more: object = {}): ItemRecord {
  const { summary: _summary, revision: _revision, ...texts } = first;
  return {
    ...whole,
    revisions: published.map((body, i) => ({ ...first, revision: i + 1, body })),
    draft: draft && { ...texts, inReview: false, body: draft },
    ...more,
  } as ItemRecord;
}

const [ten, twelve, share] = [
  { type: 'duration', value: '10f' },
  { type: 'duration', value: '12f' },
  { type: 'number', value: 0.5 },
] as const;

const problemsOf = (data: unknown): string[] =>
  itemRecordSchema.safeParse(data).error?.issues.map(({ message }) => message) ?? [];

describe('an item whole', () => {
  test('has revisions, a draft, or both', () => {
    expect(problemsOf(record([ten, twelve], null))).toEqual([]);
    expect(problemsOf(record([], ten))).toEqual([]);
    expect(problemsOf(record([ten], twelve))).toEqual([]);
    expect(problemsOf(record([], null))).toEqual(['An item has a published revision or a draft.']);
  });

  test('numbers its revisions from one, without a gap', () => {
    const odd = record([ten, twelve], null);
    for (const numbers of [
      [2, 3],
      [1, 3],
      [2, 1],
      [1, 1],
    ]) {
      const revisions = odd.revisions.map((revision, i) => ({ ...revision, revision: numbers[i] }));
      expect(problemsOf({ ...odd, revisions })).toEqual(['Revisions must be numbered 1, 2, 3 … without a gap.']);
    }
  });

  test('keeps the type of a house value, in its draft too', () => {
    const sentence = 'A house value keeps its type from revision to revision: what refers to it counts on it.';
    expect(problemsOf(record([ten, share], null))).toEqual([sentence]);
    expect(problemsOf(record([ten], share))).toEqual([sentence]);
  });

  test.each(STARTER_LIBRARY.map((one) => [one.id, one] as const))('%s is held, and is what it was', (_id, one) => {
    expect(problemsOf(recordOf(one))).toEqual([]);
    expect(revisionOf(recordOf(one))).toEqual({ ...one, revision: 1 });
  });
});

describe('what is shown of an item', () => {
  test('a revision by its number, without one the newest; its draft with the number that it will have', () => {
    const both = record([ten, twelve], share as never);
    expect([revisionOf(both, 1)?.body, revisionOf(both)?.body]).toEqual([ten, twelve]);
    expect(revisionOf(both, 3)).toBeNull();
    expect(draftOf(both)).toMatchObject({ revision: 3, state: 'draft', body: share });
    expect(draftOf(record([ten], null))).toBeNull();
    expect(draftOf({ ...both, draft: { ...both.draft, inReview: true } } as ItemRecord)?.state).toBe('in review');
  });

  test('first the newest revision, the draft where there is none; whether it is retired', () => {
    expect(frontOf(record([ten, twelve], share as never))).toMatchObject({ revision: 2, state: 'published' });
    expect(frontOf(record([], ten))).toMatchObject({ revision: 1, state: 'draft' });
    expect(frontOf(record([ten], null, { retired: true })).state).toBe('retired');
  });
});

test('words that have changed since are read as they are now; all else stays the same object', () => {
  const body = { phase: 'through', rows: [] };
  expect(inPresentWords(body)).toEqual({ phase: 'throughout', rows: [] });
  const present = { phase: 'exit' };
  expect(inPresentWords(present)).toBe(present);
  expect(inPresentWords(null)).toBeNull();
  expect(inPresentWords('text')).toBe('text');
});
