import '@angular/compiler';
import { beforeEach, describe, expect, test } from '@jest/globals';
import { Injector, runInInjectionContext } from '@angular/core';
import {
  apply,
  fileAddress,
  programmeBoard,
  replacingEdits,
  type FileInPlace,
  type KeptFile,
  type Layer,
  type SaveRequest,
  type Scene,
} from '@wexikine/core';
import { of, throwError } from 'rxjs';
import { ApiService } from '../api/api.service';
import { ReplaceEverywhere, stillPossible } from './replace-everywhere';

const named = (digit: string): string => `${digit.repeat(64)}.png`;
const [OLD, NEW] = [named('a'), named('b')];
const shown = (name: string) => ({ type: 'picture', href: fileAddress(name), width: 4, height: 3 }) as const;
const next: FileInPlace = { kind: 'shown', source: shown(NEW) };

function sceneOf(id: string, ...files: string[]): Scene {
  const [like] = programmeBoard().layers;
  const layers = files.map((file, i): Layer => ({
    ...like,
    id: `${id}-${i}`,
    kind: 'picture',
    tracks: {},
    look: {},
    source: shown(file),
  }));
  return { ...programmeBoard(), id, layers, runs: [], cues: [] };
}

/** A server with some scenes; before a save of one, somebody else may have been quicker, or it may refuse. */
function server(...scenes: Scene[]) {
  const stored = new Map(scenes.map((scene) => [scene.id, { version: 1, scene }]));
  const quicker = new Map<string, number>();
  const refusing = new Set<string>();
  const api = {
    scene: (id: string) => {
      const found = stored.get(id);
      if (found) return of(structuredClone(found));
      return throwError(() => Object.assign(new Error('There is no such scene.'), { code: 'not-found' }));
    },
    saveScene: (id: string, body: SaveRequest) => {
      const { version, scene } = stored.get(id) as { version: number; scene: Scene };
      const left = quicker.get(id) ?? 0;
      if (left > 0) {
        quicker.set(id, left - 1);
        stored.set(id, { version: version + 1, scene: { ...scene, name: `${scene.name}!` } });
      }
      if (refusing.has(id)) return throwError(() => Object.assign(new Error('It is full.'), { code: 'invalid' }));
      if (body.base !== stored.get(id)?.version)
        return throwError(() => Object.assign(new Error('Too late.'), { code: 'conflict' }));
      const changed = new Map(body.layers.map((layer) => [layer.id, layer]));
      const layers = scene.layers.map((layer) => changed.get(layer.id) ?? layer);
      stored.set(id, { version: version + 1, scene: { ...scene, layers } });
      return of({ version: version + 1 });
    },
  };
  const injector = Injector.create({ providers: [{ provide: ApiService, useValue: api }] });
  const everywhere = runInInjectionContext(injector, () => new ReplaceEverywhere());
  const filesIn = (id: string): string[] =>
    stored.get(id)?.scene.layers.map(({ source }) => ('href' in source ? source.href : '')) ?? [];
  const file: KeptFile = {
    name: OLD,
    title: 'Moon',
    size: 1,
    added: '',
    facts: {},
    uses: scenes.map(({ id }) => ({ scene: id, sceneName: id, layers: 1, isDeleted: false })),
  };
  return { everywhere, filesIn, quicker, refusing, stored, file };
}

const at = (...names: string[]): string[] => names.map(fileAddress);

beforeEach(() => void Object.assign(globalThis, { localStorage: { getItem: () => 'Me' } }));

describe('a file in the place of another everywhere', () => {
  test('is shown in every scene that used the one before, and taking that back leaves what was', async () => {
    const { everywhere, file, filesIn } = server(sceneOf('wall', OLD, NEW, OLD), sceneOf('board', OLD));
    const done = await everywhere.replace(file, next, 'Replace');
    expect([done.layers, done.scenes.length]).toEqual([3, 2]);
    expect([filesIn('wall'), filesIn('board')]).toEqual([at(NEW, NEW, NEW), at(NEW)]);
    await everywhere.takeBack(done, 'Take back');
    expect([filesIn('wall'), filesIn('board')]).toEqual([at(OLD, NEW, OLD), at(OLD)]);
  });

  test('is put there after all where somebody else saved in between', async () => {
    const { everywhere, file, filesIn, quicker, stored } = server(sceneOf('wall', OLD));
    quicker.set('wall', 2);
    await everywhere.replace(file, next, 'Replace');
    expect(filesIn('wall')).toEqual(at(NEW));
    expect(stored.get('wall')?.scene.name).toMatch(/!!$/);
  });

  test('is nowhere where one scene refuses, which is said', async () => {
    const { everywhere, file, filesIn, refusing } = server(sceneOf('wall', OLD), sceneOf('board', OLD));
    refusing.add('board');
    await expect(everywhere.replace(file, next, 'Replace')).rejects.toThrow(
      '“board” could not be changed, so nothing was. It is full.',
    );
    expect([filesIn('wall'), filesIn('board')]).toEqual([at(OLD), at(OLD)]);
  });

  test('leaves deleted scenes alone, which keep the file', async () => {
    const { everywhere, file, filesIn, stored } = server(sceneOf('gone', OLD), sceneOf('wall', OLD));
    stored.delete('gone');
    const done = await everywhere.replace(file, next, 'Replace');
    expect([done.layers, done.scenes.length]).toEqual([1, 1]);
    expect(filesIn('wall')).toEqual(at(NEW));
  });

  test('taking back leaves alone what is gone, or was changed since', () => {
    const scene = sceneOf('wall', OLD, OLD, OLD);
    const edits = replacingEdits(scene, fileAddress(OLD), next, () => []);
    const result = apply(scene, edits);
    if (!result.ok) throw new Error(result.problem.code);
    const [first, second] = result.scene.layers;
    const since = { layers: [first, { ...second, source: shown(named('c')) }] };
    const back = stillPossible(since, edits, result.inverse);
    expect(back).toMatchObject([{ type: 'set-layer', layer: 'wall-0', fields: { source: shown(OLD) } }]);
  });

  test('a mask beneath a run is taken back too, where it is still as it was made', () => {
    const mask = { shape: 'picture', how: 'add', x: 0, y: 0, width: 1, height: 1, turn: 0, soft: 0 } as const;
    const under = (name: string) => ({
      look: { masks: [{ ...mask, picture: { href: fileAddress(name), by: 'brightness' as const } }] },
    });
    const [plain] = sceneOf('wall', NEW).layers;
    const scene = { ...sceneOf('wall'), layers: [{ ...plain, base: under(OLD) }] };
    const edits = replacingEdits(scene, fileAddress(OLD), next, () => []);
    const result = apply(scene, edits);
    if (!result.ok) throw new Error(result.problem.code);
    expect(stillPossible(result.scene, edits, result.inverse)).toEqual([
      { type: 'set-base', layer: 'wall-0', base: under(OLD) },
    ]);
    const since = { layers: [{ ...plain, base: under(named('c')) }] };
    expect(stillPossible(since, edits, result.inverse)).toEqual([]);
  });
});
