import '@angular/compiler';
import { describe, expect, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import { createShelf, programmeBoard, STARTER_LIBRARY, type Finding, type RunRecord, type Scene } from '@wexikine/core';
import { BehaviorSubject } from 'rxjs';
import { KeptFiles } from '../files/kept-files';
import { LibraryService } from '../library/library.service';
import type { PlannedRun } from '../planning/planned-run';
import { DraftStore, type Draft, type Shown } from './draft.store';
import { firstRecipe } from './first-recipe';
import { RunState } from './run-state';

const shelf = createShelf(STARTER_LIBRARY);
const board = programmeBoard();
const item = shelf.preset('rise-and-settle');
if (!item) throw new Error('no preset');
const recipe = firstRecipe(board, item);
const asked: Draft = { recipe, run: null, isLive: true };

const head = { id: 'run-2', recipe, preset: { id: 'rise-and-settle', name: 'Rise & settle', revision: 3 } };

function planned(more: object = {}): PlannedRun {
  const counts = { layers: 12, added: 60, replaced: 0, removed: 0, findings: 0 };
  return { findings: [], layers: [], counts, run: head, hasEdits: true, ...more } as unknown as PlannedRun;
}

function shown(more: Partial<Shown> = {}): Shown {
  return { standing: board, drawn: board, plan: planned(), isLive: true, isPlanning: false, ...more };
}

interface Given {
  readonly shown?: Shown;
  readonly draft?: Draft;
  readonly progress?: number | null;
  readonly motion?: readonly Finding[];
}

function stateOf(given: Given = {}): RunState {
  const drafts = {
    shown$: new BehaviorSubject(given.shown ?? shown()),
    draft$: new BehaviorSubject(given.draft ?? asked),
    progress$: new BehaviorSubject(given.progress ?? null),
    motion$: new BehaviorSubject(given.motion ?? []),
  };
  const injector = Injector.create({
    providers: [
      { provide: DraftStore, useValue: drafts },
      { provide: LibraryService, useValue: { shelf$: new BehaviorSubject(shelf) } },
      { provide: KeptFiles, useValue: { names$: new BehaviorSubject(new Set()) } },
    ],
  });
  return runInInjectionContext(injector, () => new RunState());
}

const error: Finding = { code: 'nothing-picked' } as Finding;
const draftPreset = { code: 'draft-preset', item: 'x' } as unknown as Finding;

/** The board with a run on it that used an earlier revision. */
function changing(plan: object = {}): Given {
  const run = { id: 'run-1', preset: { ...head.preset, revision: 2 } } as unknown as RunRecord;
  const standing: Scene = { ...board, runs: [run] };
  return { shown: shown({ standing, plan: planned(plan) }), draft: { ...asked, run: 'run-1' } };
}

describe('how the run stands', () => {
  test.each([
    ['a dry run with keys', {}, true, 'Apply to 12'],
    ['one that is being planned again', { shown: shown({ isPlanning: true }) }, true, 'Apply to 12'],
    ['one that would change nothing', { shown: shown({ plan: planned({ hasEdits: false }) }) }, false, 'Apply to 12'],
    ['one with an error', { shown: shown({ plan: planned({ findings: [error] }) }) }, false, 'Apply to 12'],
    [
      'one of a draft of a preset',
      { shown: shown({ plan: planned({ findings: [draftPreset] }) }) },
      false,
      'Publish it to apply',
    ],
    ['the scene as it stands', { shown: shown({ isLive: false, plan: null }) }, false, 'Dry run on 12'],
    [
      'what was applied',
      { shown: shown({ isLive: false, plan: null }), draft: { ...asked, isLive: false, isApplied: true } },
      false,
      'Applied',
    ],
    ['a run that is changed', changing(), true, 'Change 12'],
    ['a run that would be as it is', changing({ hasEdits: false }), false, 'No change'],
  ] as const)('%s: whether it can be applied, and what the button says', (_, given, canApply, label) => {
    const state = stateOf(given);
    expect([state.canApply(), state.applyLabel()]).toEqual([canApply, label]);
  });

  test('it waits until a dry run is asked for, and no more once it was applied', () => {
    const still = shown({ isLive: false, plan: null });
    expect(stateOf({ shown: still }).isWaiting()).toBe(true);
    expect(stateOf().isWaiting()).toBe(false);
    expect(stateOf({ shown: still, draft: { ...asked, isApplied: true } }).isWaiting()).toBe(false);
  });

  test('planning that takes long tells how far it is', () => {
    expect([stateOf().planningWords(), stateOf().isLong()]).toEqual(['planning…', false]);
    const long = stateOf({ progress: 0.459 });
    expect([long.planningWords(), long.isLong()]).toEqual(['planning, 45 % done…', true]);
  });

  test('the run that is open has its number, and says which revisions it goes between', () => {
    expect([stateOf().changing(), stateOf().updating()]).toEqual([null, '']);
    const state = stateOf(changing());
    expect([state.changing(), state.updating()]).toEqual([1, ', from revision 2 to 3 of Rise & settle']);
    const same = stateOf(changing({ run: { ...head, preset: { ...head.preset, revision: 2 } } }));
    expect(same.updating()).toBe('');
  });

  test('what is found in the dry run and in motion is told together; notes want no attention', () => {
    const note = { code: 'hidden', layers: ['a'] } as unknown as Finding;
    const state = stateOf({ shown: shown({ plan: planned({ findings: [error] }) }), motion: [note] });
    expect(state.findings().map(({ code }) => code)).toEqual(['nothing-picked', 'hidden']);
    expect([state.cannotApply(), state.attention()]).toEqual([true, 1]);
  });

  test('what follows is told of the plan of this operation alone', () => {
    const layers = [{ layer: 'a', place: 0, starts: 0, lasts: 10, moments: [] }];
    expect(stateOf({ shown: shown({ plan: planned({ layers }) }) }).solved()).not.toBeNull();
    const other = { ...head, recipe: { ...recipe, operation: 'take-out' } };
    expect(stateOf({ shown: shown({ plan: planned({ layers, run: other }) }) }).solved()).toBeNull();
    expect(stateOf().solved()).toBeNull();
  });

  test('layers of the dry run are told in their order, and how many of all are picked', () => {
    const layers = [
      { layer: 'b', place: 1 },
      { layer: 'c', place: 2 },
      { layer: 'a', place: 0 },
    ];
    const state = stateOf({ shown: shown({ plan: planned({ layers }) }) });
    expect(state.taking()).toEqual(['a', 'b', 'c']);
    expect(state.pickedWords()).toBe(`12 of ${board.layers.length} layers picked`);
    expect(state.picked().size).toBe(12);
    const alone = { ...board, layers: board.layers.slice(0, 1) };
    expect(stateOf({ shown: shown({ standing: alone }) }).pickedWords()).toMatch(/ of 1 layer picked$/);
  });
});
