import { describe, expect, test } from '@jest/globals';
import {
  createAdjust,
  createArrange,
  createClear,
  createKeysRecipe,
  createLineUp,
  createMultiply,
  createPassOn,
  createRecipe,
  createRigRecipe,
  createShelf,
  createStyle,
  programmeBoard,
  sentenceParts,
  severityOf,
  STARTER_LIBRARY,
  type Operation,
  type Pick,
  type Recipe,
} from '@wexikine/core';
import { demoOf, helpFor } from './field-demos';

const shelf = createShelf(STARTER_LIBRARY);
const scene = programmeBoard();
const pick: Pick = { by: 'rule', tag: 'row' };

/** A recipe of each operation, as one begins with. */
const BEGUN: Readonly<Record<Operation, Recipe>> = {
  'bring-in': createRecipe('bring-in', 'rise-and-settle', pick),
  'send-out': createRecipe('send-out', 'rise-and-settle', pick),
  accent: createRecipe('accent', 'rise-and-settle', pick),
  'move-throughout': createRecipe('move-throughout', 'rise-and-settle', pick),
  rig: createRigRecipe('rig-sway', pick),
  'turn-into-keys': createKeysRecipe('turn-into-keys', pick),
  'thin-out': createKeysRecipe('thin-out', pick),
  adjust: createAdjust(pick),
  'line-up': createLineUp(pick),
  arrange: createArrange(pick),
  'pass-on': createPassOn(pick, 'row-01'),
  style: createStyle(pick),
  multiply: createMultiply(pick),
  clear: createClear(pick),
};
const fields = [
  ...new Set(
    Object.values(BEGUN)
      .flatMap((recipe) => sentenceParts(recipe, { scene, shelf, count: 12 }))
      .flatMap(({ field }) => field ?? []),
  ),
];

describe('the help of fields', () => {
  test('each field of each sentence has help of its own', () => {
    expect(fields.length).toBeGreaterThan(20);
    const fallback = helpFor('operation');
    expect(fields.filter((field) => field !== 'operation' && helpFor(field) === fallback)).toEqual([]);
  });

  test('fields of one kind share one', () => {
    expect(helpFor('parameter:tilt')).toBe(helpFor('parameter:rise'));
    expect(helpFor('vary:fill')).toBe(helpFor('vary:stroke'));
  });

  test.each(fields)('%s: what shows it does something, and nothing is wrong with it', (field) => {
    const { plan, scene: shown, from, to } = demoOf(helpFor(field), shelf);
    expect(plan.edits.length).toBeGreaterThan(0);
    expect(plan.findings.filter((finding) => severityOf(finding) === 'error')).toEqual([]);
    expect(to).toBeGreaterThan(from);
    expect(to).toBeLessThanOrEqual(shown.length);
  });
});
