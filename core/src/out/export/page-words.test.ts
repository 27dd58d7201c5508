import { describe, expect, test } from '@jest/globals';
import type { Layer, TextSource } from '../../scene/layer';
import { card, key, PAL } from '../../testing/scenes';
import { wordsDrawn } from './page-words';

const source: TextSource = { type: 'text', text: 'Tide', font: 'Spline Sans', weight: 400, size: 20, align: 'left' };

function drawn(tracks: Layer['tracks'], more: Partial<TextSource> = {}, rest: Layer['rest'] = {}) {
  const own = { ...source, ...more };
  return wordsDrawn(card('a', { source: own, tracks, rest }), own, { rate: PAL }, 'w');
}

/** Contents of one part frame by frame: per cent of the way and text. */
function contents(rules: readonly string[], part: string): [number, string][] {
  const rule = rules.find((one) => one.startsWith(`@keyframes w-${part} `)) ?? '';
  return [...rule.matchAll(/([\d.]+)% \{ content: "([^"]*)"/g)].map(([, at, text]) => [Number(at), text]);
}

describe('words of a page', () => {
  test('that do not change are text, with signs of HTML as what they are', () => {
    expect(drawn({}, { text: 'Tide & <moon>' })).toEqual({ html: '<span>Tide &#38; &#60;moon&#62;</span>', rules: [] });
  });

  test('that are typed have a letter at each frame in which one comes, and what is not yet there takes its room', () => {
    const { html, rules } = drawn({ 'words.shown': [key(10, 0), key(14, 1)] });
    expect(html).toContain('id="w-shown"');
    // Four letters over four frames.
    expect(contents(rules, 'shown')).toEqual([
      [0, ''],
      [25, 'T'],
      [50, 'Ti'],
      [75, 'Tid'],
      [100, 'Tide'],
    ]);
    expect(contents(rules, 'later').map(([, text]) => text)).toEqual(['Tide', 'ide', 'de', 'e', '']);
    expect(rules.join('\n')).toContain('animation: w-shown 0.16s linear 0.4s both');
  });

  test('that begin between two frames go on with the whole ones', () => {
    const late = drawn({ 'words.shown': [{ ...key(10, 0), at: key(10, 0).at + 1_000 }, key(14, 1)] });
    const times = contents(late.rules, 'shown').map(([at]) => at);
    // At the first whole frame behind it not quite a quarter is shown, so that the first letter comes with the next one.
    expect(times.map(Math.round)).toEqual([0, 50, 75, 100]);
  });

  test('that stand half typed are still, without any animation', () => {
    const { html, rules } = drawn({}, {}, { 'words.shown': 0.5 });
    expect(html).toContain('class="typed"');
    expect(rules.some((rule) => rule.startsWith('@keyframes'))).toBe(false);
    expect(rules.join('\n')).toContain('#w-shown::before { content: "Ti" }');
    expect(rules.join('\n')).toContain('#w-later::before { content: "de" }');
  });
});
