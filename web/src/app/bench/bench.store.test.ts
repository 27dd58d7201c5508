import '@angular/compiler';
import { afterEach, beforeEach, describe, expect, jest, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import { STARTER_LIBRARY, type LibraryDetail, type LibraryEntry, type LibraryItem } from '@wexikine/core';
import { BehaviorSubject, firstValueFrom, Observable, of, throwError } from 'rxjs';
import { ApiService } from '../api/api.service';
import { LibraryService } from '../library/library.service';
import { BenchStore, publishedOf, type BenchSave } from './bench.store';

const ITEM: LibraryItem = STARTER_LIBRARY[0];

type Sent = { readonly base: number; readonly name: string };

/** A bench over a server that answers as it is told to. */
async function opened(content: Partial<LibraryEntry> = {}) {
  let entry: LibraryEntry = { item: ITEM, draft: null, draftVersion: 0, ...content } as LibraryEntry;
  const detail = (): LibraryDetail =>
    structuredClone({ entry, record: { id: ITEM.id, kind: ITEM.kind, revisions: [ITEM] }, history: [] }) as never;
  const library$ = new BehaviorSubject({ entries: [entry], isLoading: false, problem: null });
  const [sent, moves, taken, dropped]: [Sent[], unknown[], LibraryEntry[], string[]] = [[], [], [], []];
  const drafted = (name: string): LibraryEntry =>
    (entry = { ...entry, draft: { ...ITEM, name }, draftVersion: entry.draftVersion + 1 });
  let answer: (name: string) => Observable<LibraryEntry> = (name) => of(drafted(name));
  let isGone = false;
  const api = {
    item: () => (isGone ? throwError(() => ({ message: 'It is gone.' })) : of(detail())),
    saveDraft: (_id: string, body: Sent) => {
      sent.push(body);
      return answer(body.name);
    },
    moveDraft: (_id: string, body: unknown) => {
      moves.push(body);
      return of(entry);
    },
    discardDraft: () => {
      entry = { ...entry, draft: null, draftVersion: 0 };
      return of(entry);
    },
  };
  const library = {
    state$: library$,
    take: (entries: LibraryEntry[]) => taken.push(...entries),
    drop: (id: string) => dropped.push(id),
  };
  const injector = Injector.create({
    providers: [
      { provide: ApiService, useValue: api },
      { provide: LibraryService, useValue: library },
    ],
  });
  const store = runInInjectionContext(injector, () => new BenchStore());
  await store.open(ITEM.id);
  const states: BenchSave['type'][] = [];
  store.load$.subscribe((load) => load.type === 'ready' && states.push(load.bench.save.type));
  const now = () => store.bench?.history.now;
  const call = (name: string, merge: string | null = null): void => {
    const working = now();
    if (working) store.change(`Call it ${name}`, { ...working, name }, merge);
  };
  /** Somebody else keeps a draft. */
  const theirs = async (name: string): Promise<void> => {
    library$.next({ ...library$.value, entries: [drafted(name)] });
    await settle(0);
  };
  const answerWith = (next: typeof answer): void => void (answer = next);
  return {
    store,
    sent,
    moves,
    taken,
    dropped,
    states,
    call,
    now,
    theirs,
    drafted,
    answerWith,
    refuse: () => void (isGone = true),
  };
}

const settle = (ms: number): Promise<void> => jest.advanceTimersByTimeAsync(ms);

beforeEach(() => {
  jest.useFakeTimers();
  Object.assign(globalThis, { localStorage: { getItem: () => 'Me' } });
});
afterEach(() => void jest.useRealTimers());

describe('an item on the bench', () => {
  test('keeps its draft a moment after the last change, once, and tells the library of it', async () => {
    const { store, sent, taken, states, call } = await opened();
    expect(store.bench?.save).toEqual({ type: 'clean' });
    call('One');
    await settle(400);
    call('Two');
    await settle(400);
    expect(sent).toEqual([]);
    expect(store.hasUnsaved).toBe(true);
    await settle(300);
    expect(sent).toMatchObject([{ base: 0, name: 'Two', by: 'Me' }]);
    expect(taken.map(({ draft }) => draft?.name)).toEqual(['Two']);
    expect(states.slice(-2)).toEqual(['saving', 'kept']);
    expect(store.hasUnsaved).toBe(false);
  });

  test('keeps what was changed while it was being kept, on top of it', async () => {
    const { sent, store, call, drafted, answerWith } = await opened();
    let arrive: (() => void) | undefined;
    answerWith(
      (name) =>
        new Observable<LibraryEntry>((to) => {
          arrive = () => {
            to.next(drafted(name));
            to.complete();
          };
        }),
    );
    call('One');
    await settle(700);
    call('Two');
    await settle(700);
    expect(sent.map(({ name }) => name)).toEqual(['One']);
    arrive?.();
    await settle(0);
    expect(sent.map(({ base, name }) => [base, name])).toEqual([
      [0, 'One'],
      [1, 'Two'],
    ]);
    arrive?.();
    await settle(0);
    expect(store.bench?.save.type).toBe('kept');
  });

  test('tries again where the connection was lost, and says so meanwhile', async () => {
    const { store, sent, call, drafted, answerWith } = await opened();
    answerWith(() => throwError(() => ({ code: 'offline', message: 'No connection.' })));
    call('One');
    await settle(700);
    expect(store.bench?.save).toEqual({ type: 'failed', message: 'No connection.' });
    answerWith((name) => of(drafted(name)));
    await settle(5_100);
    expect(sent.map(({ name }) => name)).toEqual(['One', 'One']);
    expect(store.bench?.save.type).toBe('kept');
  });

  test('waits for a decision where another window kept a draft first; mine is put over theirs', async () => {
    const { store, sent, call, now, drafted, answerWith } = await opened();
    answerWith(() => throwError(() => ({ code: 'conflict', message: 'Changed elsewhere.' })));
    call('Mine');
    await settle(700);
    expect(store.bench?.save).toEqual({ type: 'conflict', message: 'Changed elsewhere.' });
    call('Mine still');
    answerWith((name) => of(drafted(name)));
    drafted('Theirs');
    await store.resolve('mine');
    expect(sent.at(-1)).toMatchObject({ base: 1, name: 'Mine still' });
    expect(now()?.name).toBe('Mine still');
    expect(store.bench?.save.type).toBe('kept');
  });

  test('takes theirs after a conflict, with mine one undo away', async () => {
    const { store, call, now, drafted, answerWith } = await opened();
    answerWith(() => throwError(() => ({ code: 'conflict', message: 'Changed elsewhere.' })));
    call('Mine');
    await settle(700);
    drafted('Theirs');
    await store.resolve('theirs');
    expect(now()?.name).toBe('Theirs');
    store.undo();
    expect(now()?.name).toBe('Mine');
    store.redo();
    expect(now()?.name).toBe('Theirs');
  });

  test('shows what another window kept where nothing of one’s own waits, and leaves one’s own alone else', async () => {
    const idle = await opened();
    await idle.theirs('Theirs');
    expect(idle.now()?.name).toBe('Theirs');
    expect(idle.store.bench?.history.done.at(-1)?.label).toBe('Changed in another window');
    const busy = await opened();
    busy.call('Mine');
    await busy.theirs('Theirs');
    expect(busy.now()?.name).toBe('Mine');
  });

  test('is kept before it is moved on, also where nothing was changed; a conflict keeps it from moving', async () => {
    const { store, sent, moves, call, answerWith } = await opened();
    await store.move('in review');
    expect(sent).toMatchObject([{ base: 0, name: ITEM.name }]);
    call('Two');
    await store.move('published', 'Calmer');
    expect(sent.map(({ name }) => name)).toEqual([ITEM.name, 'Two']);
    expect(moves).toMatchObject([
      { base: 1, to: 'in review', summary: '' },
      { base: 2, to: 'published', summary: 'Calmer' },
    ]);
    answerWith(() => throwError(() => ({ code: 'conflict', message: 'Changed elsewhere.' })));
    call('Three');
    await expect(store.move('published')).rejects.toThrow('Changed elsewhere.');
    expect(moves).toHaveLength(2);
  });

  test('stands as published once its draft is thrown away; one that was never published goes', async () => {
    const published = await opened();
    published.call('One');
    await settle(700);
    expect(await published.store.discard()).toBe(false);
    expect(published.now()?.name).toBe(ITEM.name);
    expect(published.store.bench?.save).toEqual({ type: 'clean' });
    const fresh = await opened({ item: { ...ITEM, state: 'draft' } });
    expect(fresh.store.bench?.save.type).toBe('kept');
    expect(await fresh.store.discard()).toBe(true);
    expect(fresh.dropped).toEqual([ITEM.id]);
  });

  test('keeps what waits when the bench is left, and undoing is a change like any other', async () => {
    const { store, sent, call } = await opened();
    call('One');
    store.undo();
    store.undo();
    store.redo();
    store.ngOnDestroy();
    await settle(0);
    expect(sent.map(({ name }) => name)).toEqual(['One']);
  });

  test('says why an item cannot be opened, and which revision its work is compared with', async () => {
    const { store } = await opened();
    expect(publishedOf(store.bench?.detail as LibraryDetail)?.id).toBe(ITEM.id);
    const missing = await opened();
    missing.refuse();
    await missing.store.open('elsewhere');
    expect(missing.store.bench).toBeNull();
    await expect(firstValueFrom(missing.store.load$)).resolves.toEqual({ type: 'failed', message: 'It is gone.' });
  });
});
