import '@angular/compiler';
import { afterEach, beforeEach, describe, expect, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import { apply, countPicks, programmeBoard, type Edit, type HandPicks, type Key, type Scene } from '@wexikine/core';
import { BehaviorSubject } from 'rxjs';
import { Teller } from '../actions/teller';
import { SceneStore } from '../scene.store';
import { DialKeys } from './dial-keys';
import { KeyEdits } from './key-edits';

const before = globalThis.requestAnimationFrame;
let frames: (() => void)[] = [];
/** Shows the next frame. */
function show(): void {
  for (const draw of frames.splice(0)) draw();
}

beforeEach(() => void Object.assign(globalThis, { requestAnimationFrame: (draw: () => void) => frames.push(draw) }));
afterEach(() => {
  frames = [];
  Object.assign(globalThis, { requestAnimationFrame: before });
});

const keys: Key[] = [0, 1_000].map((at) => ({ at, value: 1, ease: { type: 'linear' } }));

/** Key edits over a scene whose first layer has two keys, with what is heard of picks and of what is told of. */
function opened() {
  const board = programmeBoard();
  const [first, ...rest] = board.layers;
  const scene$ = new BehaviorSubject<Scene>({ ...board, layers: [{ ...first, tracks: { opacity: keys } }, ...rest] });
  const store = {
    scene$,
    get scene() {
      return scene$.value;
    },
    do: (_label: string, edits: readonly Edit[]) => {
      const result = apply(scene$.value, edits);
      if (!result.ok) throw new Error(result.problem.code);
      scene$.next(result.scene);
    },
  };
  const injector = Injector.create({
    providers: [
      { provide: SceneStore, useValue: store },
      { provide: Teller, useValue: {} },
      { provide: DialKeys, useValue: { editsOf: (_scene: Scene, edits: readonly Edit[]) => edits } },
    ],
  });
  const edits = runInInjectionContext(injector, () => new KeyEdits());
  const heard = { picks: 0, told: 0 };
  edits.picks$.subscribe((picks) => (heard.picks = countPicks(picks)));
  edits.told$.subscribe((picks) => (heard.told = countPicks(picks)));
  const both: HandPicks = new Map([[first.id, new Map([['opacity', new Set([0, 1_000])]])]]);
  return { edits, heard, both, first, store };
}

describe('keys that are picked', () => {
  test('a press is seen at once where it was made, and told of a frame later', () => {
    const { edits, heard, both } = opened();
    edits.pick(both);
    expect(heard).toEqual({ picks: 2, told: 0 });
    show();
    expect(heard).toEqual({ picks: 2, told: 2 });
    edits.unpick();
    expect(heard).toEqual({ picks: 0, told: 2 });
    show();
    expect(heard).toEqual({ picks: 0, told: 0 });
  });

  test('of two presses within a frame the later one is told of', () => {
    const { edits, heard, both } = opened();
    edits.pick(both);
    edits.unpick();
    show();
    expect(heard.told).toBe(0);
  });

  test('what is changed is told of at once, where its keys then are', () => {
    const { edits, heard, both, first } = opened();
    edits.pick(both);
    show();
    const moved = keys.map((key) => ({ ...key, at: key.at + 500 }));
    edits.change('Move', {
      edits: [{ type: 'set-track', layer: first.id, channel: 'opacity', keys: moved }],
      picks: new Map([[first.id, new Map([['opacity', new Set([500, 1_500])]])]]),
    });
    expect(heard).toEqual({ picks: 2, told: 2 });
  });

  test('what is gone is no longer told of, not even for a frame', () => {
    const { edits, heard, both, first, store } = opened();
    edits.pick(both);
    show();
    store.do('Remove', [{ type: 'set-track', layer: first.id, channel: 'opacity', keys: [keys[0]] }]);
    expect(heard).toEqual({ picks: 1, told: 1 });
  });
});
