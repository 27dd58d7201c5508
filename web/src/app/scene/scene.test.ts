import { describe, expect, test } from '@jest/globals';
import {
  apply,
  createClear,
  constellations,
  createShelf,
  formatShort,
  programmeBoard,
  STARTER_LIBRARY,
  type Edit,
  type PresetItem,
  type Scene,
} from '@wexikine/core';
import { gridCells, layersFromNames } from './dialogs/new-layers';
import { commonestTag } from '../planning/free-layers';
import { firstLook, firstRecipe, withPreset } from './first-recipe';
import { doStep, overOthers, redoStep, startHistory, undoStep, type History } from './history';
import { changedByBoth, changedLayers, putMineOver } from './merge';

const shelf = createShelf(STARTER_LIBRARY);
const rename = (layer: string, name: string): Edit => ({ type: 'set-layer', layer, fields: { name } });

function done(result: ReturnType<typeof doStep>): History {
  if (!result.ok) throw new Error(result.problem.code);
  return result.history;
}

function edited(scene: Scene, ...edits: Edit[]): Scene {
  const result = apply(scene, edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
}

describe('steps', () => {
  test('are undone and done again in order, with their names', () => {
    const start = startHistory(programmeBoard());
    const two = done(doStep(done(doStep(start, 'One', [rename('moon', 'A')])), 'Two', [rename('moon', 'B')]));
    const back = done(undoStep(done(undoStep(two))));
    expect(back.scene).toEqual(start.scene);
    expect(back.undone.map(({ label }) => label)).toEqual(['Two', 'One']);
    expect(done(redoStep(done(redoStep(back)))).scene).toEqual(two.scene);
    expect(done(doStep(back, 'Other', [rename('title', 'C')])).undone).toEqual([]);
    expect(undoStep(start)).toEqual({ ok: true, history: start });
  });

  test('a step that is refused leaves everything as it was', () => {
    expect(doStep(startHistory(programmeBoard()), 'No', [rename('ghost', 'x')])).toMatchObject({ ok: false });
  });
});

describe('two windows', () => {
  const base = programmeBoard();
  const theirs = edited(base, rename('moon', 'Theirs'), rename('title', 'Theirs too'));

  test('layers that both changed are named', () => {
    expect(
      changedByBoth(base, edited(base, rename('moon', 'Mine'), rename('footer', 'Mine')), structuredClone(theirs)),
    ).toEqual(['Mine']);
  });

  test('keeping mine takes what they did elsewhere and keeps what I did', () => {
    const mine = edited(base, rename('moon', 'Mine'), { type: 'remove-layer', layer: 'footer' });
    const merged = putMineOver(base, mine, theirs);
    const nameOf = (id: string) => merged.layers.find((layer) => layer.id === id)?.name;
    expect([nameOf('moon'), nameOf('title'), nameOf('footer')]).toEqual(['Mine', 'Theirs too', undefined]);
  });

  test('a run that I changed stays changed, and scene fields are merged one by one', () => {
    const run = {
      id: 'run-1',
      sentence: 'One',
      recipe: createClear({ by: 'rule' }),
      by: 'A',
      when: '2026-01-01T00:00:00.000Z',
      layers: [],
      made: {},
    };
    const with1 = edited(base, { type: 'add-run', index: 0, run });
    const mine = edited(
      with1,
      { type: 'set-run', run: { ...run, sentence: 'Mine' } },
      { type: 'set-scene', fields: { name: 'Mine' } },
    );
    const other = edited(with1, { type: 'set-scene', fields: { cues: [{ id: 'c', name: 'C', at: 0 }] } });
    const merged = putMineOver(with1, mine, other);
    expect([merged.runs[0].sentence, merged.name, merged.cues.length]).toEqual(['Mine', 'Mine', 1]);
  });

  test('what others did keeps my steps where they touch other layers, and begins them anew where not', () => {
    const mine = done(doStep(startHistory(base), 'One', [rename('moon', 'Mine')]));
    const other = edited(mine.scene, rename('title', 'Theirs'));
    const kept = overOthers(mine, other, changedLayers(mine.scene, other));
    expect(done(undoStep(kept)).scene.layers.find(({ id }) => id === 'title')?.name).toBe('Theirs');
    const same = edited(mine.scene, rename('moon', 'Theirs'));
    expect(overOthers(mine, same, changedLayers(mine.scene, same)).done).toEqual([]);
  });

  test('a layer that they removed and I changed comes back', () => {
    const mine = edited(base, rename('moon', 'Mine'));
    const without = edited(base, { type: 'remove-layer', layer: 'moon' });
    expect(putMineOver(base, mine, without).layers.some(({ name }) => name === 'Mine')).toBe(true);
  });
});

describe('the first sentence', () => {
  test('picks the commonest tag among layers that can take part', () => {
    expect(commonestTag(programmeBoard())).toBe('row');
    expect(commonestTag(constellations())).toBe('star');
    expect(commonestTag({ ...programmeBoard(), layers: [] })).toBeNull();
  });

  test('an accent that a scene is opened with begins where the playhead stands', () => {
    const board = programmeBoard();
    const accent = [...shelf.items.values()].find((item) => item.kind === 'preset' && item.body.phase === 'accent');
    const { start } = firstRecipe(board, accent as PresetItem);
    expect(start).toEqual({ by: 'time', at: formatShort(firstLook(board), board.rate) });
    expect(firstRecipe(board, shelf.preset('rise-and-settle') as PresetItem).start).toEqual({ by: 'layer' });
  });

  test('another preset brings its verb along and drops parameters that it lacks', () => {
    const item = (id: string) => shelf.preset(id) as PresetItem;
    const recipe = {
      ...firstRecipe(programmeBoard(), item('rise-and-settle')),
      parameters: { tilt: { by: 'fixed', value: '1deg' }, lasts: { by: 'fixed', value: '9f' } },
    } as const;
    const changed = withPreset(recipe, item('fade-out'));
    expect(changed).toMatchObject({
      operation: 'send-out',
      preset: { id: 'fade-out' },
      parameters: { lasts: { by: 'fixed', value: '9f' } },
    });
    expect(Object.keys(changed.parameters)).toEqual(['lasts']);
  });
});

describe('new layers', () => {
  test('lie in a grid within the frame, one for each name', () => {
    for (const count of [1, 5, 12, 300]) {
      const cells = gridCells(1920, 1080, count);
      expect(cells).toHaveLength(count);
      for (const { x, y, width, height } of cells) {
        expect(x - width / 2).toBeGreaterThanOrEqual(0);
        expect(y + height / 2).toBeLessThanOrEqual(1080);
      }
    }
    const rowsOf = (count: number): number => new Set(gridCells(1920, 1080, count).map(({ y }) => Math.round(y))).size;
    expect([1, 2, 3, 4, 5, 6, 7, 8, 9, 12].map(rowsOf)).toEqual([1, 1, 1, 2, 2, 2, 2, 2, 3, 3]);
    let next = 0;
    const layers = layersFromNames(programmeBoard(), ['One', 'Two'], 'word', 'crew', () => `n${++next}`);
    const scene = edited(
      programmeBoard(),
      ...layers.map((layer, index): Edit => ({ type: 'add-layer', index, layer })),
    );
    expect(scene.layers.slice(0, 2).map(({ name, tags }) => [name, tags])).toEqual([
      ['One', ['crew']],
      ['Two', ['crew']],
    ]);
  });
});
