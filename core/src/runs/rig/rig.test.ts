import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { frameTicks, ticksFromSeconds, TICKS_PER_SECOND } from '../../basics/time';
import { compileRig, type Rig } from '../../formulas/rig';
import { STARTER_RIGS } from '../../library/starter';
import { apply } from '../../scene/edit';
import type { Layer } from '../../scene/layer';
import { oscillate } from '../../basics/motion';
import { compileScene, createFrame, sampleFrame, sampleKeys } from '../../scene/sample';
import { sceneSchema, type Scene } from '../../scene/scene';
import { recipeOf, rigged, shelfWith, SHELF, slider, valueIn } from '../../testing/rigs';
import { card, CONTEXT, key, PAL, sceneOf } from '../../testing/scenes';
import { CHANNEL_COUNT, channelOf } from '../../basics/channel';
import { edited } from '../../testing/planning';
import { mendsOf } from '../check';
import { describeFinding } from '../finding';
import { dryRun, plan, replan } from '../plan';
import { removeRun, switchRun } from '../stack';

const FRAME = frameTicks(PAL);
const named = (...layers: string[]) => ({ by: 'layers' as const, layers });

describe('the starter rigs', () => {
  test.each(STARTER_RIGS.map((item) => [item.name, item] as const))('%s runs without a problem', (_name, item) => {
    expect(compileRig(item.body).problems).toEqual([]);
    const layers = [slider('a'), slider('b'), slider('c')];
    const roles = Object.fromEntries(item.body.roles.map(({ name }) => [name, 'a']));
    const scene = rigged(sceneOf(layers), recipeOf(item.id, { roles }));
    expect(sceneSchema.safeParse(scene).error?.issues ?? []).toEqual([]);
    const compiled = compileScene(scene);
    const frame = createFrame(compiled);
    for (let seconds = 0; seconds < 10; seconds += 0.37) sampleFrame(compiled, ticksFromSeconds(seconds), frame);
    expect(compiled.rigs?.circles).toEqual([]);
    expect(compiled.rigs?.faults()).toEqual([]);
    expect([...frame.values].every(Number.isFinite)).toBe(true);
  });
});

describe('rigs for words', () => {
  const words = (id: string, text: string): Layer =>
    card(id, {
      source: {
        type: 'text',
        text,
        font: 'Spline Sans',
        weight: 400,
        size: 20,
        align: 'left',
        number: { decimals: 0, point: '.', group: '' },
      },
    });
  const scene = sceneOf([words('short', 'Tide'), words('long', 'Tide and moon #')]);
  const typed = (seconds: number, uneven = '0%'): number[] => {
    const parameters = {
      pace: { by: 'fixed', value: '10' },
      wait: { by: 'fixed', value: '5f' },
      uneven: { by: 'fixed', value: uneven },
    } as const;
    const all = rigged(scene, { ...recipeOf('rig-type-by-letters', { parameters }) });
    return ['short', 'long'].map((id) => valueIn(all, id, 'words.shown', seconds));
  };

  test('a number goes softly from one to another: 3u² − 2u³ (from memory, the cubic with level ends)', () => {
    const parameters = {
      from: { by: 'fixed', value: '20' },
      to: { by: 'fixed', value: '220' },
      wait: { by: 'fixed', value: '1s' },
      takes: { by: 'fixed', value: '2s' },
    } as const;
    const counting = rigged(scene, recipeOf('rig-count-up', { parameters }));
    const at = [0, 1, 1.5, 2, 2.5, 3, 4].map((seconds) => valueIn(counting, 'long', 'words.number', seconds));
    // u = 1/4: 3/16 − 2/64 = 0.15625.
    [20, 20, 20 + 200 * 0.15625, 120, 220 - 200 * 0.15625, 220, 220].forEach((value, i) =>
      expect(at[i]).toBeCloseTo(value, 9),
    );
  });

  test('letters come at one pace whatever the length of the words', () => {
    // A fifth of a second of waiting, then ten letters a second.
    expect(typed(0.2)).toEqual([0, 0]);
    expect(typed(0.4)[0]).toBeCloseTo(2 / 4, 9);
    expect(typed(0.4)[1]).toBeCloseTo(2 / 15, 9);
    expect(typed(1)[0]).toBe(1);
    expect(typed(1)[1]).toBeCloseTo(8 / 15, 9);
  });

  test('however uneven, no letter is taken back, and all of them come', () => {
    const shown = Array.from({ length: 60 }, (_, i) => typed(0.2 + i / 25, '100%')[1]);
    shown.forEach((value, i) => expect(value).toBeGreaterThanOrEqual(shown[i - 1] ?? 0));
    expect(shown.at(-1)).toBe(1);
    expect(shown[20]).not.toBeCloseTo(typed(0.2 + 20 / 25)[1], 3);
  });

  test('layers without words, or without a number in them, are told', () => {
    const told = (rig: string, layers: readonly Layer[]): string[] =>
      plan(sceneOf([...layers]), SHELF, recipeOf(rig), CONTEXT).findings.map((finding) =>
        describeFinding(finding, sceneOf([...layers])),
      );
    expect(told('rig-type-by-letters', [card('Tile')]).join()).toContain('no words');
    expect(told('rig-count-up', [card('Tile')]).join()).toContain('shows no number. Write # in its words');
    expect(told('rig-count-up', [words('a', '#')]).join()).not.toContain('no number');
  });
});

describe('physics', () => {
  // DESIGN, motion maths: keyed + arrival · sin(τ·pace·since)/(τ·pace) · carry · e^(−calm·since); the damped oscillator.
  test('carry and settle goes on with the speed of arrival', () => {
    const parameters = {
      carry: { by: 'fixed', value: '100%' },
      pace: { by: 'fixed', value: '1.5Hz' },
      calm: { by: 'fixed', value: '4' },
    } as const;
    const scene = rigged(sceneOf([slider('a')]), recipeOf('rig-carry-and-settle', { parameters }));
    for (const since of [0, 0.1, 0.35, 1, 2]) {
      const swing = Math.sin(2 * Math.PI * 1.5 * since) / (2 * Math.PI * 1.5);
      const expected = 200 + 200 * swing * Math.exp(-4 * since);
      expect(valueIn(scene, 'a', 'position.x', 1 + since)).toBeCloseTo(expected, 9);
    }
    // Unbroken: the speed just after the key is that just before it.
    const step = 1e-4;
    const after = (valueIn(scene, 'a', 'position.x', 1 + step) - 200) / step;
    expect(after).toBeCloseTo(200, 0);
    // DESIGN, check values: settle to 1 % after ln(100) ÷ calm: 1.151 s at calm 4.
    expect(Math.log(100) / 4).toBeCloseTo(1.151, 3);
    expect(valueIn(scene, 'a', 'position.x', 0.5)).toBeCloseTo(100, 9);
  });

  test.each([
    // From its in point to the first key, from key to key, and from the last one on; never below nothing.
    ['since', [0.5, 1, 1.5, 2, 3, 4, 6, 9], [0, 0, 0.5, 0, 1, 0, 2, 5]],
    // To the first key, from key to key, and to its out point; never below nothing.
    ['until', [0.5, 1, 1.5, 2, 3, 4, 6, 9], [1.5, 1, 0.5, 2, 1, 4, 2, 0]],
  ])('%s at %j s is %j s, for a layer from 1 to 8 s with keys at 2 and 4 s', (name, times, expected) => {
    const span = { in: ticksFromSeconds(1), out: ticksFromSeconds(8) };
    const layer = card('a', { span, tracks: { 'position.x': [key(50, 0), key(100, 200)] } });
    const scene = rigged(sceneOf([layer]), recipeOf('own'), shelfWith(`${name} ÷ 1s × 1px`));
    expect(times.map((time) => valueIn(scene, 'a', 'position.x', time))).toEqual(
      expected.map((value) => expect.closeTo(value, 9)),
    );
  });

  // A Bézier is reached with the slope (1 − y2) / (1 − x2) in the unit square. Source: CSS Easing Functions 1.
  test.each([
    ['linear', { type: 'linear' }, 200],
    ['a curve that is still steep', { type: 'bezier', x1: 0.3, y1: 0, x2: 0.8, y2: 0.6 }, 400],
    ['a curve that has come to rest', { type: 'bezier', x1: 0.3, y1: 0, x2: 0.2, y2: 1 }, 0],
    ['a hold', { type: 'hold' }, 0],
  ] as const)('a key is arrived at with a speed: %s', (_, ease, expected) => {
    const layer = card('a', { tracks: { 'position.x': [key(0, 0, ease), key(25, 200), key(50, 100)] } });
    const scene = rigged(sceneOf([layer]), recipeOf('own'), shelfWith('arrival × 1s'));
    const at = (seconds: number): number => valueIn(scene, 'a', 'position.x', seconds);
    expect([at(0.5), at(1), at(1.9), at(3)]).toEqual([0, expected, expected, -100].map((v) => expect.closeTo(v, 6)));
  });

  // DESIGN, check values: v = 2000 px/s, e 0.7: first flight 2v/g long and v²/2g high; handbook of mechanics.
  test.each([
    [5000, 0.7, 400],
    [2000, 0.5, 300],
    [7000, 0.85, 285],
  ])('a bounce with g = %d and restitution %d', (gravity, restitution, height) => {
    const speed = Math.sqrt(2 * gravity * height);
    const first = (2 * speed) / gravity;
    const parameters = {
      gravity: { by: 'fixed', value: String(gravity) },
      restitution: { by: 'fixed', value: String(restitution) },
      height: { by: 'fixed', value: `${height}px` },
    } as const;
    const still = card('a', { span: { in: 0, out: ticksFromSeconds(60) }, tracks: { 'position.y': [key(0, 100)] } });
    const scene = rigged(sceneOf([still]), recipeOf('rig-floor-bounce', { parameters, channels: ['position.y'] }));
    const heightAt = (seconds: number): number => 100 - valueIn(scene, 'a', 'position.y', seconds);
    expect(heightAt(first / 2)).toBeCloseTo(height, 6);
    // Each flight is e times as long and e² times as high, and it touches the floor in between.
    let begins = first;
    for (let n = 1; n < 5; n++) {
      const flight = first * restitution ** n;
      expect(heightAt(begins)).toBeCloseTo(0, 2);
      expect(heightAt(begins + flight / 2)).toBeCloseTo(height * restitution ** (2 * n), 4);
      begins += flight;
    }
    // All over after first ÷ (1 − e).
    expect(heightAt(first / (1 - restitution) + 0.01)).toBe(0);
  });

  test('a contact keeps the area', () => {
    const scene = rigged(
      sceneOf([card('a', { tracks: { 'scale.x': [key(0, 1)], 'scale.y': [key(0, 1)] } })]),
      recipeOf('rig-floor-bounce'),
    );
    for (let seconds = 0.01; seconds < 2; seconds += 0.013) {
      const area = valueIn(scene, 'a', 'scale.x', seconds) * valueIn(scene, 'a', 'scale.y', seconds);
      expect(area).toBeCloseTo(1, 9);
    }
  });

  // The damped oscillator, any mechanics handbook; against a Runge–Kutta integration of fourth order.
  test.each([0.2, 0.7, 1, 1.6])('the oscillator with damping %d is what an integration gives', (damping) => {
    const pace = 1.7;
    const omega = 2 * Math.PI * pace;
    let [x, v] = [80, -300];
    const h = 1e-4;
    const force = (at: number, speed: number): number => -omega * omega * at - 2 * damping * omega * speed;
    for (let i = 1; i <= 8000; i++) {
      const [k1, l1] = [v, force(x, v)];
      const [k2, l2] = [v + (h * l1) / 2, force(x + (h * k1) / 2, v + (h * l1) / 2)];
      const [k3, l3] = [v + (h * l2) / 2, force(x + (h * k2) / 2, v + (h * l2) / 2)];
      const [k4, l4] = [v + h * l3, force(x + h * k3, v + h * l3)];
      x += (h * (k1 + 2 * k2 + 2 * k3 + k4)) / 6;
      v += (h * (l1 + 2 * l2 + 2 * l3 + l4)) / 6;
      if (i % 1000 !== 0) continue;
      const [place, speed] = oscillate(80, -300, { pace, damping }, i * h);
      expect(place).toBeCloseTo(x, 6);
      expect(speed).toBeCloseTo(v, 5);
    }
  });

  test('a spring goes after a step as the closed form says, whichever way the time is reached', () => {
    const jump = card('a', { tracks: { 'position.x': [{ ...key(0, 0), ease: { type: 'hold' } }, key(25, 100)] } });
    const parameters = { pace: { by: 'fixed', value: '2Hz' }, damping: { by: 'fixed', value: '0.3' } } as const;
    const scene = rigged(sceneOf([jump]), recipeOf('rig-spring-to-keys', { parameters }));
    const compiled = compileScene(scene);
    const [frame, again] = [createFrame(compiled), createFrame(compiled)];
    const fresh = compileScene(scene);
    for (const seconds of [4, 1.1, 2.3, 1.25, 3]) {
      sampleFrame(compiled, ticksFromSeconds(seconds), frame);
      const [offset] = oscillate(-100, 0, { pace: 2, damping: 0.3 }, seconds - 1);
      expect(frame.values[channelOf('position.x').slot]).toBeCloseTo(100 + offset, 3);
      sampleFrame(fresh, ticksFromSeconds(5 - seconds), again);
      sampleFrame(fresh, ticksFromSeconds(seconds), again);
      expect(again.values[channelOf('position.x').slot]).toBe(frame.values[channelOf('position.x').slot]);
    }
  });

  test('a sway stays within its amounts and begins again without a seam in value and slope', () => {
    const parameters = { loop: { by: 'fixed', value: '4s' }, across: { by: 'fixed', value: '100px' } } as const;
    const scene = rigged(sceneOf([card('a')]), recipeOf('rig-sway', { parameters }));
    const at = (seconds: number): number => valueIn(scene, 'a', 'position.x', seconds) - 100;
    for (let seconds = 0; seconds < 8; seconds += 0.11) {
      expect(Math.abs(at(seconds))).toBeLessThanOrEqual(115);
      expect(at(seconds + 4 - (seconds > 4 ? 4 : 0))).toBeCloseTo(at(seconds > 4 ? seconds : seconds + 4), 9);
    }
    const step = 1e-3;
    expect(at(4 - 1e-9)).toBeCloseTo(at(4), 4);
    expect((at(4) - at(4 - step)) / step).toBeCloseTo((at(4 + step) - at(4)) / step, 0);
  });

  test('a follower does later what the leader did, from where it rests', () => {
    const layers = [
      slider('lead'),
      card('b', { rest: { 'position.x': 500 } }),
      card('c', { rest: { 'position.x': 700 } }),
    ];
    const parameters = { gap: { by: 'fixed', value: '5f' } } as const;
    const scene = rigged(
      sceneOf(layers),
      recipeOf('rig-follow-down-the-line', { roles: { leader: 'lead' }, parameters }),
    );
    // The leader rests at 100 and slides from 0 to 200: at 0.6 s it was at 80, 10 frames before.
    expect(valueIn(scene, 'c', 'position.x', 1)).toBeCloseTo(700 + 200 * 0.6 - 100, 9);
    expect(valueIn(scene, 'b', 'position.x', 1)).toBeCloseTo(500 + 200 * 0.8 - 100, 9);
    expect(valueIn(scene, 'lead', 'position.x', 1)).toBeCloseTo(200, 9);
  });

  test('stepped time holds each picture', () => {
    const scene = rigged(sceneOf([slider('a')]), recipeOf('rig-stepped-time', { channels: ['position.x'] }));
    const at = (frame: number): number => valueIn(scene, 'a', 'position.x', frame / 25);
    expect([3, 4, 5, 6, 7].map(at).map((value) => Math.round(value))).toEqual([24, 24, 24, 48, 48]);
  });
});

describe('rigs in a scene', () => {
  test('store no keys, little, and nothing that moves when they are taken away', () => {
    const layers = Array.from({ length: 1000 }, (_, i) => slider(`layer-${i}`));
    const before = sceneOf(layers);
    const parameters = { carry: { by: 'ramp', from: '10%', to: '90%' } } as const;
    const scene = rigged(before, recipeOf('rig-carry-and-settle', { parameters }));
    expect(JSON.stringify(scene.runs).length).toBeLessThan(100_000);
    expect(scene.layers.map(({ tracks }) => tracks)).toEqual(before.layers.map(({ tracks }) => tracks));
    for (const { edits } of [removeRun(scene, 'run-1'), switchRun(scene, 'run-1')]) {
      const applied = apply(scene, edits);
      expect(applied.ok && compileScene(applied.scene).rigs).toBeNull();
    }
  });

  test('add up in the order of the runs, and what is not finite falls back to the keys', () => {
    const shelf = shelfWith('keyed × 2');
    const scene = rigged(sceneOf([slider('a')]), recipeOf('own'), shelf);
    const both = rigged(scene, recipeOf('own'), shelfWith('keyed + 5px'), 'run-2');
    expect(valueIn(both, 'a', 'position.x', 0.5)).toBeCloseTo(205, 9);
    // Asked for one channel alone, the second works on what the first gives, too.
    expect(compileScene(both).rigs?.valueAt(0, 'position.x', ticksFromSeconds(0.5))).toBeCloseTo(205, 9);
    // A layer before it that has the second alone changes nothing about their order.
    const one = rigged(sceneOf([slider('lone'), slider('a')]), { ...recipeOf('own'), pick: named('a') }, shelf);
    const two = rigged(one, recipeOf('own'), shelfWith('keyed + 5px'), 'run-2');
    expect(valueIn(two, 'lone', 'position.x', 0.5)).toBeCloseTo(105, 9);
    expect(valueIn(two, 'a', 'position.x', 0.5)).toBeCloseTo(205, 9);
    const broken = rigged(sceneOf([slider('a')]), recipeOf('own'), shelfWith('keyed + 1px ÷ (t ÷ 1s - 0.5)'));
    const compiled = compileScene(broken);
    const frame = createFrame(compiled);
    sampleFrame(compiled, ticksFromSeconds(0.5), frame);
    expect(frame.values[0]).toBeCloseTo(100, 9);
    expect(compiled.rigs?.faults()).toEqual([{ run: 'run-1', layer: 'a', channel: 'position.x' }]);
  });

  test('know of their layers: size as scaled, length, place, count, share, rest and the frame; the axis at hand', () => {
    const size = { 'size.x': 80, 'size.y': 20, 'scale.x': -0.5, 'scale.y': 3 };
    const second = card('b', {
      rest: { 'position.x': 300, 'position.y': 70, ...size },
      span: { in: FRAME, out: 51 * FRAME },
    });
    const lead = card('lead', { rest: { 'position.x': 11, 'position.y': 22, rotation: 33 } });
    const scene = sceneOf([slider('a'), second, card('c'), lead]);
    const valued = (text: string, channel: 'position.x' | 'position.y' = 'position.x'): number => {
      const shelf = shelfWith(text, [channel], { roles: [{ name: 'leader', note: '' }] });
      const recipe = { ...recipeOf('own', { roles: { leader: 'lead' }, seed: 5 }), pick: named('a', 'b', 'c') };
      return valueIn(rigged(scene, recipe, shelf), 'b', channel, 1);
    };
    expect(valued('layer.width')).toBeCloseTo(40, 9);
    expect(valued('layer.height')).toBeCloseTo(60, 9);
    expect(valued('1px × layer.length ÷ 1s')).toBeCloseTo(2, 9);
    expect(valued('1px × place')).toBeCloseTo(1, 9);
    expect(valued('1px × count')).toBeCloseTo(3, 9);
    expect(valued('1px × share')).toBeCloseTo(0.5, 9);
    expect(valued('1px × seed')).toBeCloseTo(5, 9);
    expect([valued('rest'), valued('rest', 'position.y')]).toEqual([300, 70]);
    expect([valued('leader.rest'), valued('leader.rest', 'position.y')]).toEqual([11, 22]);
    expect([valued('leader.position'), valued('leader.position', 'position.y')]).toEqual([11, 22]);
    expect(valued('leader.position.y')).toBe(22);
    expect(valued('1px × leader.rotation ÷ 1deg')).toBeCloseTo(33, 9);
    expect([valued('frame.width'), valued('frame.height')]).toEqual([scene.width, scene.height]);
  });

  test('circles are named, and the rest goes on working', () => {
    const own: Partial<Rig> = {
      formulas: [
        { channels: ['position.x'], text: 'each.position.y' },
        { channels: ['position.y'], text: 'each.position.x' },
        { channels: ['rotation'], text: 'keyed + 7deg' },
      ],
    };
    const shelf = shelfWith('', [], own);
    const planned = dryRun(sceneOf([slider('a')]), shelf, recipeOf('own'), CONTEXT);
    expect(planned.findings).toContainEqual({
      code: 'rig-circle',
      layers: ['a'],
      channels: expect.arrayContaining(['position.x', 'position.y']) as unknown as string[],
    });
    const scene = rigged(sceneOf([slider('a')]), recipeOf('own'), shelf);
    expect(valueIn(scene, 'a', 'rotation', 1)).toBe(7);
    expect(valueIn(scene, 'a', 'position.x', 1)).toBe(200);
  });

  test('a channel that reads itself is a circle, too', () => {
    const shelf = shelfWith('each.rotation + 1deg', ['rotation'], {});
    const { findings } = dryRun(sceneOf([slider('a')]), shelf, recipeOf('own'), CONTEXT);
    expect(findings).toContainEqual({ code: 'rig-circle', layers: ['a'], channels: ['rotation'] });
  });

  test('a chain of followers, each after the one before it, reads further back with every step', () => {
    const layers = Array.from({ length: 40 }, (_, i) => (i === 0 ? slider('0') : card(String(i))));
    const scene = rigged(sceneOf(layers), recipeOf('own'), shelfWith('follow(before.position.x, 1f)'));
    for (const place of [0, 1, 7, 23]) {
      expect(valueIn(scene, String(place), 'position.x', 1)).toBeCloseTo(200 - (place + 1) * 8, 6);
    }
  });

  test('a rig that carries a speed on says where there is none', () => {
    const soft = { type: 'bezier', x1: 0.3, y1: 0, x2: 0, y2: 1 } as const;
    const layers = [
      slider('a'),
      card('still'),
      card('soft', { tracks: { 'position.x': [key(0, 0, soft), key(25, 200)] } }),
    ];
    const { findings } = dryRun(sceneOf(layers), SHELF, recipeOf('rig-carry-and-settle'), CONTEXT);
    const channels = expect.arrayContaining(['position.x']) as unknown as Rig['formulas'][number]['channels'];
    expect(findings).toContainEqual({ code: 'rig-idle', layers: ['still'], why: 'no-keys', channels });
    const slow = findings.find((finding) => finding.code === 'rig-idle' && finding.why === 'no-speed');
    expect(slow).toMatchObject({ layers: ['soft'] });

    // A two-hundredth of its mean speed is none to be seen, a tenth is one.
    const arriving = (y2: number): boolean => {
      const ease = { type: 'bezier', x1: 0.3, y1: 0, x2: 0.9, y2 } as const;
      const on = sceneOf([card('it', { tracks: { 'position.x': [key(0, 0, ease), key(25, 200)] } })]);
      const told = dryRun(on, SHELF, recipeOf('rig-carry-and-settle'), CONTEXT).findings;
      return !told.some((finding) => finding.code === 'rig-idle');
    };
    expect([arriving(0.9995), arriving(0.99)]).toEqual([false, true]);

    // Only channels whose formula reads the speed of arrival are asked for it.
    const formulas: Rig['formulas'] = [
      { channels: ['rotation'], text: 'keyed' },
      { channels: ['position.x'], text: 'keyed + arrival × 0s' },
    ];
    const turned = sceneOf([card('turned', { tracks: { rotation: [key(0, 0), key(25, 90)] } })]);
    const reading = dryRun(turned, shelfWith('', [], { formulas }), recipeOf('own'), CONTEXT);
    expect(reading.findings).toContainEqual({
      code: 'rig-idle',
      layers: ['turned'],
      why: 'no-keys',
      channels: ['position.x'],
    });

    // One click lets it arrive at an even speed; then there is nothing to be told of it.
    const standing = sceneOf(layers);
    const [mend] = slow ? mendsOf(slow, null, standing, standing) : [];
    const edits = mend && 'edits' in mend ? mend.edits : [];
    const mended = dryRun(edited(standing, edits), SHELF, recipeOf('rig-carry-and-settle'), CONTEXT);
    expect(mended.findings.some((finding) => finding.code === 'rig-idle' && finding.why === 'no-speed')).toBe(false);
  });

  test('dials: keyed, by layer, by turns; later along the order', () => {
    const dials: Rig['dials'] = [{ name: 'by', label: 'By', kind: 'length', default: '10px', note: '' }];
    const shelf = shelfWith('keyed + @by', ['position.x'], { dials });
    const layers = [card('a'), card('b'), card('c')];
    const value = (scene: Scene, id: string, seconds: number): number =>
      valueIn(scene, id, 'position.x', seconds) - 100;
    const plain = rigged(sceneOf(layers), recipeOf('own'), shelf);
    expect(['a', 'b', 'c'].map((id) => value(plain, id, 0))).toEqual([10, 10, 10]);
    const turns = { parameters: { by: { by: 'cycle' as const, values: ['1px', '2px'] } } };
    const own = { overrides: { c: { parameters: { by: '50px' } } } };
    const varied = rigged(sceneOf(layers), recipeOf('own', { ...turns, ...own }), shelf);
    expect(['a', 'b', 'c'].map((id) => value(varied, id, 0))).toEqual([1, 2, 50]);
    const keyed = { parameters: { by: { by: 'keys' as const, keys: [key(0, 0), key(50, 100)] } }, later: '5f' };
    const moving = rigged(sceneOf(layers), recipeOf('own', keyed), shelf);
    expect(['a', 'b', 'c'].map((id) => Math.round(value(moving, id, 1)))).toEqual([50, 40, 30]);
  });

  test('planned again with another dial it keeps its revision and changes one record', () => {
    const scene = rigged(sceneOf([slider('a'), slider('b')]), recipeOf('rig-carry-and-settle'));
    const next = recipeOf('rig-carry-and-settle', { parameters: { calm: { by: 'fixed', value: '9' } } });
    const planned = replan(scene, SHELF, 'run-1', next, CONTEXT);
    expect(planned.edits.map(({ type }) => type)).toEqual(['set-run']);
    expect(replan(scene, SHELF, 'run-1', recipeOf('rig-carry-and-settle'), CONTEXT).edits).toEqual([]);
  });

  test('the value at a time is the one of the frame, of any channel', () => {
    const scene = rigged(sceneOf([slider('a'), slider('b')]), recipeOf('rig-sway'));
    const compiled = compileScene(scene);
    const frame = createFrame(compiled);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 250 }), (at) => {
        const time = at * frameTicks(PAL);
        sampleFrame(compiled, time, frame);
        for (const channel of ['position.x', 'position.y', 'rotation', 'scale.x'] as const) {
          const value = frame.values[CHANNEL_COUNT + channelOf(channel).slot];
          expect(compiled.rigs?.valueAt(1, channel, time)).toBeCloseTo(value, 9);
        }
      }),
      { numRuns: 60 },
    );
    sampleKeys(compiled, TICKS_PER_SECOND / 2, frame);
    expect(frame.values[0]).toBeCloseTo(100, 9);
  });
});

test.each([24, 25, 50, 60])('a frame in a formula is one of the scene, at %i a second', (num) => {
  const scene = { ...sceneOf([card('a', { rest: { 'position.x': 0 } })]), rate: { num, den: 1 } };
  const shelf = shelfWith('keyed + 600px × 1f ÷ 1s');
  expect(valueIn(rigged(scene, recipeOf('own'), shelf), 'a', 'position.x', 0.5)).toBeCloseTo(600 / num, 9);
});
