import '@angular/compiler';
import { describe, expect, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { apply, programmeBoard, type Edit, type Layer, type Scene } from '@wexikine/core';
import { of } from 'rxjs';
import { Teller } from '../actions/teller';
import { DraftStore } from '../draft.store';
import { SceneStore } from '../scene.store';
import { StageActions } from './stage-actions';

/** Three cards of the demo scene, and a group with two more, of which one is locked. */
function start(): Scene {
  const board = programmeBoard();
  const cards = board.layers.filter(({ kind }) => kind === 'card').slice(0, 5);
  const [a, b, c, d, e] = cards.map(({ base: _base, ...layer }, i): Layer => ({
    ...layer,
    id: 'abcde'[i],
    name: `Card ${'abcde'[i]}`,
    parent: i > 2 ? 'g' : null,
    look: { fill: '#204060' },
    rest: { ...layer.rest, corner: 0 },
    locked: i === 4,
    tracks: {},
  }));
  const group: Layer = { ...a, id: 'g', name: 'Pair', kind: 'group', source: { type: 'none' }, look: {} };
  return { ...board, runs: [], layers: [a, b, c, group, d, e] };
}

/** What is done, in a store that only applies, with all that is told and asked. */
function acting(answer?: unknown) {
  const done: string[] = [];
  const told: string[] = [];
  const picked: unknown[] = [];
  const store = {
    scene: start() as Scene | null,
    do(label: string, edits: readonly Edit[]): boolean {
      const result = apply(store.scene as Scene, edits);
      if (!result.ok) return false;
      store.scene = result.scene;
      done.push(label);
      return true;
    },
  };
  const injector = Injector.create({
    providers: [
      { provide: SceneStore, useValue: store },
      { provide: DraftStore, useValue: { pick: (pick: unknown) => void picked.push(pick) } },
      {
        provide: Teller,
        useValue: { tell: (text: string) => void told.push(text), offerUndo: (text: string) => void told.push(text) },
      },
      { provide: MatDialog, useValue: { open: () => ({ afterClosed: () => of(answer) }) } },
    ],
  });
  const actions = runInInjectionContext(injector, () => new StageActions());
  const ids = (): string[] => (store.scene?.layers ?? []).map(({ id }) => id);
  const layer = (id: string): Layer => store.scene?.layers.find((one) => one.id === id) as Layer;
  return { actions, store, done, told, picked, ids, layer };
}

const these = (...ids: string[]): ReadonlySet<string> => new Set(ids);
const at = ({ rest }: Layer): (number | undefined)[] => [rest['position.x'], rest['position.y']];

describe('groups', () => {
  test('are made with a name of their own, and taken apart, one at a time', () => {
    const { actions, done, told, layer } = acting();
    const [group] = actions.group(these('a', 'b')) ?? [];
    expect([layer('a').parent, layer('b').parent, layer(group).name]).toEqual([group, group, 'Group 1']);
    expect(actions.ungroup(these(group, 'c'))).toBeNull();
    expect(told).toEqual(['Select one group: what is in it comes out.']);
    expect(actions.ungroup(these(group))).toEqual(['a', 'b']);
    expect(layer('a').parent).toBeNull();
    expect(actions.ungroup(these('c'))).toBeNull();
    expect(told[1]).toMatch(/^Select a group/);
    expect(done).toEqual(['Group 2 layers', 'Take “Group 1” apart']);
  });
});

describe('copies', () => {
  test('lie aside first, and go on by as much as the copy before was moved since', () => {
    const { actions, store, layer } = acting();
    const [x, y] = at(layer('a')) as number[];
    const [first] = actions.duplicate(these('a')) ?? [];
    expect(at(layer(first))).toEqual([x + 40, y + 40]);
    store.do('Move', [
      {
        type: 'set-layer',
        layer: first,
        fields: { rest: { ...layer(first).rest, 'position.x': x + 7, 'position.y': y } },
      },
    ]);
    const [second] = actions.duplicate(these(first)) ?? [];
    expect(at(layer(second))).toEqual([x + 14, y]);
    // Of something else it begins anew; where the copy was put back onto the first one, too.
    const [other] = actions.duplicate(these('b')) ?? [];
    expect(at(layer(other))).toEqual((at(layer('b')) as number[]).map((one) => one + 40));
    store.do('Move', [{ type: 'set-layer', layer: other, fields: { rest: layer('b').rest } }]);
    const [again] = actions.duplicate(these(other)) ?? [];
    expect(at(layer(again))).toEqual((at(layer('b')) as number[]).map((one) => one + 40));
    expect(actions.duplicate(these())).toBeNull();
  });

  test('go through text: aside where the first ones are, in their place elsewhere; other text is not for layers', () => {
    const { actions, store, done, told, layer } = acting();
    const text = actions.copy(these('a', 'b')) ?? '';
    expect(told).toEqual(['2 layers can be pasted, here or in another scene.']);
    const pasted = actions.paste(text) ?? [];
    expect(at(layer(pasted[0]))).toEqual((at(layer('a')) as number[]).map((one) => one + 40));
    store.scene = { ...start(), layers: [] };
    const [elsewhere] = actions.paste(actions.copy(these('a')) ?? text) ?? [];
    expect(at(layer(elsewhere))).toEqual(at(start().layers[0]));
    expect(done).toEqual(['Paste 2 layers', 'Paste 2 layers']);
    expect(actions.paste('Tide tables')).toBeUndefined();
    expect(actions.copy(these())).toBeNull();
  });
});

describe('what is removed', () => {
  test('goes with what is in it, but for what is locked, and can be undone', () => {
    const { actions, done, told, ids } = acting();
    expect(actions.remove(these('a'))).toEqual([]);
    expect(ids()).toEqual(['b', 'c', 'g', 'd', 'e']);
    expect([done[0], told[0]]).toEqual(['Remove “Card a”', '“Card a” was removed.']);
    expect(actions.remove(these('e'))).toBeNull();
    expect(told[1]).toMatch(/^What is locked is not removed/);
    actions.remove(these('b', 'c'));
    expect(told[2]).toBe('2 layers were removed.');
    expect(actions.remove(these())).toBeNull();
  });
});

describe('depth', () => {
  test('is changed by steps, and what is there already is told', () => {
    const { actions, done, told, ids } = acting();
    actions.depth(these('a'), 'forward');
    expect(ids().slice(0, 3)).toEqual(['b', 'a', 'c']);
    actions.depth(these('b'), 'back');
    expect(told).toEqual(['It is there already.']);
    expect(done).toEqual(['Bring “Card a” forward']);
  });

  test('is said as what it is: in depth, into a group, or out of it', () => {
    const { actions, done, layer } = acting();
    actions.place(these('a'), { parent: null, before: 'c' } as never);
    actions.place(these('a'), { parent: 'g', before: null } as never);
    expect(layer('a').parent).toBe('g');
    actions.place(these('a'), { parent: null, before: null } as never);
    expect(done.slice(-2)).toEqual(['Move “Card a” into “Pair”', 'Move “Card a” out of its group']);
  });
});

describe('what is locked, hidden or a guide', () => {
  test('is so for all alike: off only where all are on', () => {
    const { actions, done, layer } = acting();
    actions.flip(these('d', 'e'), 'locked');
    expect([layer('d').locked, layer('e').locked]).toEqual([true, true]);
    actions.flip(these('d', 'e'), 'locked');
    expect([layer('d').locked, layer('e').locked]).toEqual([false, false]);
    actions.flip(these('a'), 'guide');
    expect(layer('a').kind).toBe('guide');
    actions.flip(these('a'), 'guide');
    expect(layer('a').kind).toBe('card');
    // A group with layers in it stays one; the store says so.
    actions.flip(these('g'), 'guide');
    expect(layer('g').kind).toBe('group');
    actions.flip(these('b'), 'hidden');
    actions.flip(these(), 'hidden');
    expect(done).toEqual([
      'Lock 2 layers',
      'Unlock 2 layers',
      'Make a guide of “Card a”',
      'Show again “Card a”',
      'Hide “Card b”',
    ]);
  });

  test('is left out of what “all” takes, as is what lies in groups', () => {
    const { actions } = acting();
    actions.flip(these('b'), 'hidden');
    actions.flip(these('c'), 'locked');
    expect(actions.all()).toEqual(['a', 'g']);
  });

  test('what is shown alone keeps the groups around it and what is in it; once more, all are shown', () => {
    const { actions, store, done } = acting();
    const hidden = (): string[] => (store.scene?.layers ?? []).filter((one) => one.hidden).map(({ id }) => id);
    actions.onlyThese(these('d'));
    expect(hidden()).toEqual(['a', 'b', 'c', 'e']);
    actions.onlyThese(these('d'));
    expect(hidden()).toEqual([]);
    actions.onlyThese(these('g'));
    expect(hidden()).toEqual(['a', 'b', 'c']);
    expect(done).toEqual(['Show only “Card d”', 'Show all layers', 'Show only “Pair”']);
  });
});

describe('what is added, aligned and anchored', () => {
  test('a shape is put where it was pointed at, or in the middle, on top', () => {
    const { actions, store, ids, layer } = acting();
    const [middle] = actions.add('rectangle', null) ?? [];
    const [scene] = [store.scene as Scene];
    expect(at(layer(middle))).toEqual([scene.width / 2, scene.height / 2]);
    const [pointed] = actions.add('ellipse', { x: 30, y: 40 }) ?? [];
    expect([at(layer(pointed)), ids().at(-1)]).toEqual([[30, 40], pointed]);
  });

  test('what would change nothing is told', () => {
    const { actions, done, told } = acting();
    actions.align(these('a', 'b'), 'left', 'rest', 0);
    actions.align(these('a', 'b'), 'left', 'rest', 0);
    actions.spread(these('a', 'b'), 'down', 'rest', 0);
    actions.anchor(these('a'), { x: 0, y: 1 }, 0);
    actions.anchor(these('a'), { x: 0, y: 1 }, 0);
    expect(told).toContain('Select three layers or more whose gaps differ.');
    expect(told.at(-1)).toBe('The anchor is there already.');
    expect(done.at(-1)).toBe('Set the anchor of “Card a”');
  });
});

describe('what needs an answer', () => {
  test('is done with it, and not at all without one', async () => {
    const asked = acting({ columns: 3, rows: 2 });
    expect(await asked.actions.splitBox(these('a', 'b'))).toBeNull();
    expect(asked.told).toEqual(['Select one picture or one card.']);
    await asked.actions.splitBox(these('a'));
    expect(asked.done).toEqual(['Split “Card a” into 3 × 2']);
    const closed = acting(undefined);
    expect(await closed.actions.splitBox(these('a'))).toBeNull();
    await closed.actions.background();
    await closed.actions.setOut(these('a', 'b'));
    await closed.actions.setOut(these('a', 'e'));
    expect(closed.done).toEqual([]);
    expect(closed.told).toEqual(['Select two layers or more that are not locked.']);
    const painted = acting({ background: '#102030' });
    await painted.actions.background();
    expect([painted.done, painted.store.scene?.background]).toEqual([['Set the background'], '#102030']);
  });
});

describe('words', () => {
  test('are written anew where they differ; only one layer of words is split', () => {
    const { actions, store, done, told, layer, picked } = acting();
    const words = programmeBoard().layers.find(({ source }) => source.type === 'text') as Layer;
    store.scene = {
      ...(store.scene as Scene),
      layers: [...(store.scene?.layers ?? []), { ...words, id: 'w', parent: null }],
    };
    actions.write('w', 'Low water');
    actions.write('w', 'Low water');
    actions.write('a', 'Nothing to write on');
    expect(done).toEqual([`Set the words of “${words.name}”`]);
    expect(layer('w').source).toMatchObject({ text: 'Low water' });
    expect(actions.split(these('a'), 'letters')).toBeNull();
    expect(actions.split(these('a', 'w'), 'letters')).toBeNull();
    expect([told, picked]).toEqual([['Select one layer of words.', 'Select one layer of words.'], []]);
  });

  test('without a scene nothing is done', async () => {
    const { actions, store, done, told } = acting({ columns: 2, rows: 2 });
    store.scene = null;
    expect([actions.group(these('a')), actions.ungroup(these('a')), actions.add('ellipse', null)]).toEqual([
      null,
      null,
      null,
    ]);
    expect([actions.copy(these('a')), actions.remove(these('a')), actions.all()]).toEqual([null, null, []]);
    expect(await actions.splitBox(these('a'))).toBeNull();
    expect([done, told]).toEqual([[], []]);
  });
});
