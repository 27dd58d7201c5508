import { describe, expect, test } from '@jest/globals';
import { moreSteps, type ItemStanding } from './more-steps';

const DRAFT: ItemStanding = {
  hasDraft: true,
  isInReview: false,
  isRetired: false,
  isPublished: false,
  isEntrance: false,
};

describe('what can be done with an item besides working on it', () => {
  test('a draft is published without review or discarded, never retired', () => {
    expect(moreSteps(DRAFT)).toEqual(['publish', 'duplicate', 'discard']);
  });

  test('what is in review is published by its own button', () => {
    expect(moreSteps({ ...DRAFT, isInReview: true })).toEqual(['duplicate', 'discard']);
  });

  test('an entrance has its exit made, a published item is retired', () => {
    const published = { ...DRAFT, hasDraft: false, isPublished: true };
    expect(moreSteps({ ...published, isEntrance: true })).toEqual(['duplicate', 'exit', 'retire']);
  });

  test('what is retired is brought back, and not retired again', () => {
    const retired = { ...DRAFT, hasDraft: false, isPublished: true, isRetired: true };
    expect(moreSteps(retired)).toEqual(['duplicate', 'bring back']);
  });
});
