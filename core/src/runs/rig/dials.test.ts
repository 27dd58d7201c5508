import { describe, expect, test } from '@jest/globals';
import bezierEasing from 'bezier-easing';
import { channelOf, type ChannelId } from '../../basics/channel';
import { frameTicks } from '../../basics/time';
import { compileRig, type Rig } from '../../formulas/rig';
import type { RigRecipe } from '../../scene/recipe';
import { sceneSchema, type Scene } from '../../scene/scene';
import { recipeOf, rigged, shelfWith, slider, valueIn } from '../../testing/rigs';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { readsOf } from '../operations';
import { dryRun, retuneRig } from '../plan';
import {
  copyKeys,
  dialPasteWords,
  easePicks,
  movePicks,
  pasteDialKeys,
  readKeyClip,
  removePicks,
  setPickedValues,
  type HandChange,
  type HandPicks,
} from '../adjust';
import { dialChannel, isDialLayer, keyedDials, perDialUnit, takeDialsApart, withDialLayers } from './dial-keys';

const FRAME = frameTicks(PAL);

describe('dials of every kind', () => {
  const dial = (kind: Rig['dials'][number]['kind'], value: string): Rig['dials'][number] => ({
    name: 'own',
    label: 'Own',
    kind,
    default: value,
    note: '',
  });
  const turns = (values: readonly string[]): Partial<RigRecipe> => ({
    parameters: { own: { by: 'cycle', values: [...values] } },
    order: { by: 'layered' },
  });

  test('a curve is read by ease, each layer by its own', () => {
    const shelf = shelfWith('ease(@own, clamp(t ÷ 2s, 0, 1)) × 100px', ['position.x'], {
      dials: [dial('curve', 'linear')],
    });
    const scene = rigged(
      sceneOf([card('a'), card('b'), card('c')]),
      recipeOf('own', turns(['linear', 'cubic-bezier(0.42, 0, 1, 1)'])),
      shelf,
    );
    expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
    // Kept once each, whoever has them.
    expect(scene.runs[0].rig?.curves).toHaveLength(2);
    const at = (layer: string, seconds: number): number => valueIn(scene, layer, 'position.x', seconds);
    expect(at('a', 1)).toBeCloseTo(50, 9);
    expect(at('c', 0.5)).toBeCloseTo(25, 9);
    // The registry's bezier-easing.
    for (const seconds of [0.3, 1, 1.7]) {
      expect(at('b', seconds)).toBeCloseTo(100 * bezierEasing(0.42, 0, 1, 1)(seconds / 2), 4);
    }
  });

  test('two runs of one rig keep to their own curves', () => {
    const shelf = shelfWith('keyed + ease(@own, 50%) × 100px', ['position.x'], { dials: [dial('curve', 'linear')] });
    const set = (value: string): Partial<RigRecipe> => ({ parameters: { own: { by: 'fixed', value } } });
    const first = rigged(sceneOf([card('a')]), recipeOf('own', set('steps(4, end)')), shelf);
    const both = rigged(first, recipeOf('own', set('cubic-bezier(0, 0, 0, 1)')), shelf, 'run-2');
    const rest = both.layers[0].rest['position.x'] ?? 0;
    const bezier = 100 * bezierEasing(0, 0, 0, 1)(0.5);
    expect(valueIn(both, 'a', 'position.x', 1)).toBeCloseTo(rest + 50 + bezier, 4);
  });

  test('a colour is the part that a channel drives, and its parts elsewhere', () => {
    const dials = [dial('colour', '#ff0000')];
    const parts: ChannelId[] = ['fill.l', 'fill.a', 'fill.b'];
    const scene = rigged(
      sceneOf([card('a', { look: { fill: '#000000' } })]),
      recipeOf('own', { parameters: { own: { by: 'fixed', value: '#ffffff' } } }),
      shelfWith('mix(keyed, @own, 50%)', parts, { dials }),
    );
    // White in OKLab is (1, 0, 0), black (0, 0, 0): B. Ottosson 2020.
    expect(parts.map((channel) => valueIn(scene, 'a', channel, 1))).toEqual([
      expect.closeTo(0.5, 5),
      expect.closeTo(0, 5),
      expect.closeTo(0, 5),
    ]);
    const read = rigged(sceneOf([card('a')]), recipeOf('own'), shelfWith('@own.l × 100px', ['position.x'], { dials }));
    // Red's lightness, 0.62796, in the same source.
    expect(valueIn(read, 'a', 'position.x', 1)).toBeCloseTo(62.796, 2);
    const { problems } = compileRig({ dials, roles: [], formulas: [{ channels: ['position.x'], text: '@own' }] });
    expect(problems.map(({ message }) => message)).toEqual([
      '@own is a colour, and fits the channels of fill and stroke colours.',
    ]);
  });

  test('a layer is read where it rests, and the run is planned anew where runs under it change that', () => {
    const shelf = shelfWith('mix(keyed, @own.x, 50%)', ['position.x'], { dials: [dial('layer', 'none')] });
    const standing = sceneOf([
      card('a', { rest: { 'position.x': 100 } }),
      card('goal', { rest: { 'position.x': 500 } }),
    ]);
    const recipe = recipeOf('own', {
      pick: { by: 'layers', layers: ['a'] },
      parameters: { own: { by: 'fixed', value: 'goal' } },
    });
    const scene = rigged(standing, recipe, shelf);
    expect(valueIn(scene, 'a', 'position.x', 1)).toBeCloseTo(300, 9);
    expect(readsOf(scene.runs[0]).rest).toBe(true);
  });
});

test('a speed is written as a length or a number by the second, and a let line may still be called s', () => {
  const at = (text: string): number =>
    valueIn(rigged(sceneOf([card('a')]), recipeOf('own'), shelfWith(text)), 'a', 'position.x', 2);
  expect(at('40px/s × t')).toBeCloseTo(80, 9);
  expect(at('100px × exp(-0.5/s × t)')).toBeCloseTo(100 * Math.exp(-1), 9);
  expect(at('3px/s^2 × t × t')).toBeCloseTo(12, 9);
  expect(at('let s = 4px\ns + 1px')).toBeCloseTo(5, 9);
});

describe('keys of dials', () => {
  const shelf = shelfWith('keyed + @own', ['position.x'], {
    dials: [{ name: 'own', label: 'Own', kind: 'length', default: '10px', note: '' }],
  });
  const scene = rigged(
    sceneOf([slider('a')]),
    recipeOf('own', { parameters: { own: { by: 'keys', keys: [key(0, 0), key(10, 50), key(20, 80)] } } }),
    shelf,
  );
  const [run] = scene.runs;
  const [{ dial, layer }] = keyedDials(scene.runs);
  const channel = dialChannel(dial);
  const times = (...frames: number[]): HandPicks =>
    new Map([[layer.id, new Map([[channel, new Set(frames.map((frame) => frame * frameTicks(PAL)))]])]]);
  const changed = (picked: readonly number[], change: (all: Scene, picks: HandPicks) => HandChange) => {
    const { edits, picks } = change(withDialLayers(scene), times(...picked));
    const { edits: own, turned } = takeDialsApart(scene, edits);
    expect(own).toEqual([]);
    return { recipe: turned[0].recipe, picks };
  };

  test('are found with their dial, and stand on a layer of their own, in the unit of the dial', () => {
    expect(keyedDials([run]).map((one) => [one.dial.label, one.layer.name, channel])).toEqual([
      ['Own', 'Own', 'letterSpacing'],
    ]);
    expect(channelOf(channel).unit).toBe('px');
    expect(layer.tracks[channel]).toHaveLength(3);
    expect(keyedDials([{ ...run, recipe: recipeOf('own') }])).toEqual([]);
    const { rig: _rig, ...without } = run;
    expect(keyedDials([without])).toEqual([]);
    expect(withDialLayers(scene).layers.map(({ id }) => isDialLayer(id))).toEqual([false, true]);
    // No scene can hold such a layer.
    expect(sceneSchema.safeParse(withDialLayers(scene)).success).toBe(false);
  });

  test('a scene without keyed dials is the same one', () => {
    const plain = sceneOf([card('a')]);
    expect(withDialLayers(plain)).toBe(plain);
  });

  test('are moved, take the place of what stands there, and stay picked', () => {
    const { recipe, picks } = changed([0, 10], (all, picked) => movePicks(all, picked, 10 * frameTicks(PAL)));
    expect(recipe.parameters['own']).toEqual({ by: 'keys', keys: [key(10, 0), key(20, 50)] });
    expect(picks).toEqual(times(10, 20));
    const tuned = retuneRig(scene, shelf, run.id, recipe, CONTEXT);
    if (!tuned.ok) throw new Error('not tuned');
    const after = { ...scene, runs: [tuned.run] };
    expect(valueIn(after, 'a', 'position.x', 2)).toBeCloseTo(250, 9);
  });

  test('are set, and without any left the dial keeps a value', () => {
    const set = changed([20], (all, picked) => setPickedValues(all, picked, (value) => value * 2));
    expect(set.recipe.parameters['own']).toEqual({ by: 'keys', keys: [key(0, 0), key(10, 50), key(20, 160)] });
    const gone = changed([0, 10, 20], removePicks);
    expect(gone.recipe.parameters['own']).toEqual({ by: 'fixed', value: '0px' });
    expect(gone.picks.size).toBe(0);
  });

  test('take curves as keys of layers do', () => {
    const { recipe } = changed([0], (all, picked) => easePicks(all, picked, { type: 'hold' }));
    expect(recipe.parameters['own']).toMatchObject({ keys: [{ ease: { type: 'hold' } }, {}, {}] });
  });

  test('edits of layers stay as they are beside those of dials', () => {
    const other = { type: 'remove-layer', layer: 'a' } as const;
    const { edits } = movePicks(withDialLayers(scene), times(10), 5);
    const apart = takeDialsApart(scene, [other, ...edits]);
    expect(apart.edits).toEqual([other]);
    expect(apart.turned).toHaveLength(1);
    // So do those that are of no layer.
    const named = { type: 'set-scene', fields: { name: 'Other' } } as const;
    expect(takeDialsApart(scene, [named, ...edits]).edits).toEqual([named]);
  });

  test('count from before the scene, where a dial has one there, and a run reads no spans and keeps no empty list', () => {
    const early = { own: { by: 'keys' as const, keys: [key(-20, 0), key(10, 50)] } };
    const scene = rigged(sceneOf([slider('a')]), recipeOf('own', { parameters: early }), shelf);
    const [dial] = keyedDials(scene.runs);
    expect(dial.layer.span.in).toBe(-20 * frameTicks(PAL));
    expect(keyedDials([run])[0].layer.span.in).toBe(0);
    expect(readsOf(scene.runs[0])).toEqual({ spans: false, rest: false, keys: false, sweeps: false });
    expect(Object.keys(scene.runs[0].rig ?? {})).not.toContain('curves');
  });

  test('are copied with the name of their rig, and pasted where a dial is called so, keyed or not', () => {
    const clip = copyKeys(scene, times(10, 20));
    if (!clip) throw new Error('nothing copied');
    expect(readKeyClip(JSON.stringify(clip))).toEqual(clip);
    expect(clip.layers).toEqual([]);
    // Dials without a picked key leave nothing on the clipboard.
    const keyed = rigged(
      sceneOf([slider('a'), card('b', { tracks: { rotation: [key(0, 3)] } })]),
      scene.runs[0].recipe as never,
      shelf,
    );
    const own = copyKeys(keyed, new Map([['b', new Map([['rotation', new Set([0])]])]]));
    expect(own?.layers).toHaveLength(1);
    expect(own).not.toHaveProperty('dials');
    const both = copyKeys(keyed, new Map([...times(10, 20), ['b', new Map([['rotation', new Set([0])]])]]));
    expect([both?.layers.length, both?.dials?.length]).toEqual([1, 1]);
    const bare = rigged(sceneOf([slider('a')]), recipeOf('own'), shelf);
    const { turned, report } = pasteDialKeys(bare, clip, 30 * frameTicks(PAL));
    expect(turned[0].recipe.parameters['own']).toEqual({ by: 'keys', keys: [key(30, 50), key(40, 80)] });
    expect(dialPasteWords(report)).toMatch(/^2 keys pasted on the dial “Own” of /);
    const onto = pasteDialKeys(scene, clip, 20 * frameTicks(PAL)).turned[0].recipe.parameters['own'];
    expect(onto).toEqual({ by: 'keys', keys: [key(0, 0), key(10, 50), key(20, 50), key(30, 80)] });
  });

  test('go to the rig that they came from alone, where others have a dial of that name', () => {
    const clip = copyKeys(scene, times(10, 20));
    if (!clip) throw new Error('nothing copied');
    const [{ rig }] = scene.runs;
    if (!rig) throw new Error('no rig');
    const other = { ...scene.runs[0], id: 'other', rig: { ...rig, name: 'Another rig' } };
    const both = { ...scene, runs: [other, ...scene.runs] };
    expect(pasteDialKeys(both, clip, 0).turned.map(({ run: { id } }) => id)).toEqual([scene.runs[0].id]);
    const renamed = { ...both, runs: both.runs.map((one) => ({ ...one, rig: { ...rig, name: 'A third' } })) };
    expect(pasteDialKeys(renamed, clip, 0).turned).toHaveLength(2);
  });

  test('are said not to fit where no rig has such a dial; at another rate they keep their frames', () => {
    const clip = copyKeys(scene, times(0, 10));
    if (!clip) throw new Error('nothing copied');
    const none = pasteDialKeys(sceneOf([card('a')]), clip, 0);
    expect(none.turned).toEqual([]);
    expect(dialPasteWords(none.report)).toBe(
      'The dial “Own” took none: no rig of this scene has one of that name and kind.',
    );
    const fast = { ...scene, rate: { num: 50, den: 1 } };
    const { recipe } = pasteDialKeys(fast, clip, 0).turned[0];
    expect(recipe.parameters['own']).toMatchObject({ keys: [{ at: 0 }, { at: 10 * frameTicks(fast.rate) }, {}, {}] });
  });
});

test('a rig that cannot be put on as it is asked for is not turned, and says why', () => {
  const shelf = shelfWith('t ÷ 1s × 1px', ['position.x'], {});
  const scene = rigged(sceneOf([card('a')]), recipeOf('own'), shelf);
  const turned = (recipe: RigRecipe, known = shelf) => retuneRig(scene, known, scene.runs[0].id, recipe, CONTEXT);
  expect(turned(recipeOf('own'))).toMatchObject({ ok: true });
  expect(turned(recipeOf('own', { pick: { by: 'layers', layers: [] } })).ok).toBe(false);
  expect(turned(recipeOf('other'))).toMatchObject({ ok: false, findings: [{ code: 'unknown-rig' }] });
  expect(retuneRig(scene, shelf, 'gone', recipeOf('own'), CONTEXT)).toMatchObject({ ok: false });
});

test('a rig knows how large the frame of its scene is, and how long one of its frames', () => {
  const shelf = shelfWith('frame.width ÷ 10 + frame.height ÷ 100 + 1px × (50f ÷ 1s)', ['position.x']);
  const wide = { ...sceneOf([card('a'), card('b')]), width: 1_000, height: 500 };
  const scene = rigged(wide, recipeOf('own'), shelf);
  for (const layer of ['a', 'b']) expect(valueIn(scene, layer, 'position.x', 1)).toBeCloseTo(100 + 5 + 2, 9);
  const other = { ...wide, width: 200, height: 3_000, rate: { num: 50, den: 1 } };
  expect(valueIn(rigged(other, recipeOf('own'), shelf), 'b', 'position.x', 1)).toBeCloseTo(20 + 30 + 1, 9);
});

test('what is read of a layer that a later run drives is what that gives at the same time, however many lie between', () => {
  const layers = [slider('lead'), card('b'), card('c')];
  const leader = { roles: [{ name: 'leader', note: '' }] };
  const put = (scene: Scene, on: string, text: string, run: string, of?: string): Scene => {
    const shelf = shelfWith(text, ['position.x'], of === undefined ? {} : leader);
    const roles: Record<string, string> = of === undefined ? {} : { leader: of };
    return rigged(scene, { ...recipeOf('own', { roles }), pick: { by: 'layers', layers: [on] } }, shelf, run);
  };
  // The last of the chain is driven by the first run, and what it hangs on by the later ones.
  let scene = put(sceneOf(layers), 'c', 'leader.position.x + 1px', 'run-1', 'b');
  scene = put(scene, 'b', 'leader.position.x × 2', 'run-2', 'lead');
  scene = put(scene, 'lead', 'keyed + 5px', 'run-3');
  for (const [seconds, x] of [
    [0.5, 105],
    [1, 205],
    [0.25, 55],
  ]) {
    const values = ['lead', 'b', 'c'].map((id) => Number(valueIn(scene, id, 'position.x', seconds).toFixed(6)));
    expect(values).toEqual([x, 2 * x, 2 * x + 1]);
  }
});

test('a rig that comes later on each one of the order starts so much later there, and lasts to the end of its layer', () => {
  const shelf = shelfWith('keyed + 1px', ['position.x']);
  const cards = [card('a'), card('b', { span: { in: 10 * FRAME, out: 90 * FRAME } }), card('c')];
  const scene = sceneOf(cards);
  const shown = dryRun(scene, shelf, recipeOf('own', { later: '5f' }), { ...CONTEXT, runId: 'r' });
  const ends = cards.map(({ span }) => span.out / FRAME);
  expect(shown.layers.map(({ starts }) => starts / FRAME)).toEqual([0, 15, 10]);
  expect(shown.layers.map(({ starts, lasts }) => (starts + lasts) / FRAME)).toEqual(ends);
});

test('times of dials are typed as frames, others in their own unit', () => {
  expect(perDialUnit({ kind: 'time' }, PAL)).toBe(25);
  expect(perDialUnit({ kind: 'time' }, { num: 24_000, den: 1_001 })).toBeCloseTo(24_000 / 1_001, 9);
  expect(perDialUnit({ kind: 'percent' }, PAL)).toBe(100);
  expect(perDialUnit({ kind: 'angle' }, PAL)).toBe(1);
});
