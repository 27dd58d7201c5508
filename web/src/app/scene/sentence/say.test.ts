import '@angular/compiler';
import { beforeEach, describe, expect, jest, test } from '@jest/globals';
import { ChangeDetectorRef, Injector, runInInjectionContext, signal } from '@angular/core';
import { BehaviorSubject } from 'rxjs';
import { LibraryService } from '../../library/library.service';
import { RecipeActions } from '../actions/recipe-actions';
import { RunActions } from '../actions/run-actions';
import { Teller } from '../actions/teller';
import { DraftStore } from '../draft.store';
import { PlayerStore } from '../player.store';
import { RunState } from '../run-state';
import { Say } from './say';

type Outcome = Awaited<ReturnType<DraftStore['apply']>>;

const told: string[] = [];
let isEmitted = false;

beforeEach(() => {
  told.length = 0;
  isEmitted = false;
});

/** The bar over a run that is applied with an outcome. */
function sayOver(
  outcome: Outcome,
  { isWaiting = false, count = 12, run = null as number | null, copies = false } = {},
) {
  const setLive = jest.fn();
  const apply = jest.fn(() => Promise.resolve(outcome));
  const draft = { recipe: { operation: copies ? 'multiply' : 'bring-in' } };
  const state = {
    draft: signal(draft),
    shelf: signal(null),
    isWaiting: () => isWaiting,
    changing: () => run,
  };
  const provided: readonly [unknown, object][] = [
    [DraftStore, { setLive, apply, appliedTo: count }],
    [RunState, state],
    [RunActions, {}],
    [RecipeActions, {}],
    [Teller, { tell: (text: string) => void told.push(text) }],
    [LibraryService, { state$: new BehaviorSubject({ problem: null }), offered$: new BehaviorSubject([]) }],
    [PlayerStore, { time$: new BehaviorSubject(0) }],
    [ChangeDetectorRef, { detectChanges: () => undefined }],
  ];
  const injector = Injector.create({
    providers: provided.map(([provide, useValue]) => ({ provide, useValue })),
  });
  const say = runInInjectionContext(injector, () => new Say());
  say.applied.subscribe(() => (isEmitted = true));
  return { say, setLive, apply };
}

async function acted(...given: Parameters<typeof sayOver>): Promise<string[]> {
  const { say } = sayOver(...given);
  say.act();
  await new Promise((done) => setTimeout(done));
  return told;
}

describe('the main button', () => {
  test('asks for a dry run where none is shown, and applies nothing', () => {
    const { say, setLive, apply } = sayOver('done', { isWaiting: true });
    say.act();
    expect(setLive).toHaveBeenCalledWith(true);
    expect(apply).not.toHaveBeenCalled();
  });

  test.each([
    [{}, 'Applied to 12 layers.'],
    [{ count: 1 }, 'Applied to 1 layer.'],
    [{ copies: true, count: 7 }, 'Made 7 copies.'],
    [{ copies: true, count: 1 }, 'Made 1 copy.'],
    [{ run: 3 }, 'The run was changed.'],
  ])('says what was done of %j', async (given, words) => {
    expect(await acted('done', given)).toEqual([words]);
    expect(isEmitted).toBe(true);
  });

  test.each([
    ['changed', ['Nothing was applied: the sentence or the scene was changed meanwhile.']],
    ['failed', ['Nothing was applied: it could not be planned. Change a field and try again.']],
    ['not', []],
  ] as const)('says why nothing was done where it comes out as “%s”', async (outcome, words) => {
    expect(await acted(outcome)).toEqual(words);
    expect(isEmitted).toBe(false);
  });
});
