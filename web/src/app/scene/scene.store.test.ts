import '@angular/compiler';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import { apply, programmeBoard, type Edit, type Scene, type SceneNews, type StoredScene } from '@wexikine/core';
import { NEVER, of, Subject, throwError, type Observable } from 'rxjs';
import { ApiService } from '../api/api.service';
import { LiveNews, type Heard } from '../live/live-news';
import { SceneTrail } from '../planning/trail';
import { SceneStore, type SaveState } from './scene.store';

const rename = (layer: string, name: string): Edit => ({ type: 'set-layer', layer, fields: { name } });

function edited(scene: Scene, edits: readonly Edit[]): Scene {
  const result = apply(scene, edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
}

/** A store over a server that answers as it is told to. */
function opened() {
  const board = programmeBoard();
  let stored: StoredScene = { scene: board, version: 1 } as StoredScene;
  let save: () => Observable<{ version: number }> = () => NEVER;
  const saved: { base: number; what: string }[] = [];
  const news$ = new Subject<Heard>();
  const api = {
    scene: () => of(structuredClone(stored)),
    saveScene: (_id: string, body: { base: number; what: string }) => {
      saved.push(body);
      return save();
    },
  };
  const injector = Injector.create({
    providers: [{ provide: ApiService, useValue: api }, SceneTrail, { provide: LiveNews, useValue: { news$ } }],
  });
  const store = runInInjectionContext(injector, () => new SceneStore());
  const told: string[] = [];
  const states: SaveState['type'][] = [];
  store.others$.subscribe((what) => told.push(what));
  store.save$.subscribe(({ type }) => states.push(type));
  const theirs = (version: number, by: string, what: string, ...edits: Edit[]): void => {
    stored = { ...stored, version, scene: edited(stored.scene, edits) };
    hear(version, by, what);
  };
  const hear = (version: number, by: string, what: string): void =>
    news$.next({ topic: 'scene', id: board.id, version, by, what } satisfies SceneNews);
  const answerWith = (next: typeof save): void => void (save = next);
  return { board, store, told, states, saved, theirs, hear, answerWith, miss: () => news$.next({ topic: 'missed' }) };
}

const settle = (ms: number): Promise<void> => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { localStorage: { getItem: () => 'Me' } });
});
afterEach(() => void jest.useRealTimers());

describe('an open scene', () => {
  test('is saved a moment after the last change, with the names of the steps and the version it is based on', async () => {
    const { board, store, saved, states, answerWith } = opened();
    await store.open(board.id);
    answerWith(() => of({ version: 2 }));
    store.do('One', [rename('moon', 'A')]);
    await settle(300);
    store.do('Two', [rename('moon', 'B')]);
    expect(saved).toEqual([]);
    await settle(600);
    expect(saved).toMatchObject([{ base: 1, what: 'One; Two' }]);
    expect(states.at(-1)).toBe('saved');
    expect(store.hasUnsaved).toBe(false);
  });

  test('keeps what could not be sent, and sends it when the server answers again', async () => {
    const { board, store, saved, states, answerWith } = opened();
    await store.open(board.id);
    answerWith(() => throwError(() => ({ code: 'offline', message: 'No connection.' })));
    store.do('One', [rename('moon', 'A')]);
    await settle(600);
    expect(states.at(-1)).toBe('offline');
    expect(store.hasUnsaved).toBe(true);
    answerWith(() => of({ version: 2 }));
    await settle(3_100);
    expect(saved.map(({ what }) => what)).toEqual(['One', 'One']);
    expect(states.at(-1)).toBe('saved');
  });

  test('says of a refused save that it is a conflict, and saves mine over theirs when I say so', async () => {
    const { board, store, states, saved, theirs, answerWith } = opened();
    await store.open(board.id);
    store.do('Mine', [rename('moon', 'Mine')]);
    answerWith(() => throwError(() => ({ code: 'conflict', message: 'Changed.', answer: { changes: [] } })));
    theirs(2, 'Ada', 'Theirs', rename('moon', 'Theirs'), rename('title', 'Title'));
    await settle(600);
    expect(states.at(-1)).toBe('conflict');
    let conflict: unknown;
    store.save$.subscribe((state) => (conflict = state.type === 'conflict' ? state.conflict : conflict));
    answerWith(() => of({ version: 3 }));
    store.keepMine(conflict as never);
    await settle(600);
    expect(saved.at(-1)).toMatchObject({ base: 2 });
    expect(store.scene?.layers.find(({ id }) => id === 'moon')?.name).toBe('Mine');
    expect(store.scene?.layers.find(({ id }) => id === 'title')?.name).toBe('Title');
  });
});

describe('what others save', () => {
  test('is taken in and told, once', async () => {
    const { board, store, told, theirs, hear } = opened();
    await store.open(board.id);
    theirs(2, 'Ada', 'Dim the moon', rename('moon', 'Dim'));
    await settle(300);
    hear(2, 'Ada', 'Dim the moon');
    await settle(300);
    expect(store.scene?.layers.find(({ id }) => id === 'moon')?.name).toBe('Dim');
    expect(told).toEqual(['Ada: Dim the moon']);
  });

  test('is heard of while my own save is under way, and taken in after it', async () => {
    const { board, store, told, theirs, hear, answerWith } = opened();
    await store.open(board.id);
    const answer = new Subject<{ version: number }>();
    answerWith(() => answer);
    store.do('Mine', [rename('title', 'Mine')]);
    await settle(600);
    hear(2, 'You', 'Mine');
    theirs(3, 'Ada', 'Dim the moon', rename('title', 'Mine'), rename('moon', 'Dim'));
    await settle(300);
    expect(told).toEqual([]);
    answer.next({ version: 2 });
    answer.complete();
    await settle(10);
    expect(told).toEqual(['Ada: Dim the moon']);
    expect(store.scene?.layers.find(({ id }) => id === 'moon')?.name).toBe('Dim');
  });

  test('is told under its own name where it was already taken in with other news', async () => {
    const { board, store, told, theirs, hear } = opened();
    await store.open(board.id);
    theirs(2, 'Ada', 'One', rename('moon', 'A'));
    theirs(3, 'Bo', 'Two', rename('moon', 'B'));
    await settle(300);
    expect(told).toEqual(['Ada: One; Bo: Two']);
    hear(3, 'Bo', 'Two');
    await settle(300);
    expect(told).toHaveLength(1);
  });

  test('my own save is nothing to tell, and undo goes on where others touched other layers', async () => {
    const { board, store, told, theirs, hear, answerWith } = opened();
    await store.open(board.id);
    answerWith(() => of({ version: 2 }));
    store.do('Mine', [rename('title', 'Mine')]);
    await settle(600);
    hear(2, 'You', 'Mine');
    await settle(300);
    expect(told).toEqual([]);
    theirs(3, 'Ada', 'Dim', rename('title', 'Mine'), rename('moon', 'Dim'));
    await settle(300);
    store.undo();
    expect(store.scene?.layers.find(({ id }) => id === 'title')?.name).toBe(
      board.layers.find(({ id }) => id === 'title')?.name,
    );
    expect(store.scene?.layers.find(({ id }) => id === 'moon')?.name).toBe('Dim');
  });

  test('is asked for where news may have been missed', async () => {
    const { board, store, miss, theirs } = opened();
    await store.open(board.id);
    theirs(2, 'Ada', 'x', rename('moon', 'Dim'));
    miss();
    await settle(300);
    expect(store.scene?.layers.find(({ id }) => id === 'moon')?.name).toBe('Dim');
  });
});
