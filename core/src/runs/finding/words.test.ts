import { describe, expect, test } from '@jest/globals';
import { describeFinding, type Finding } from '.';
import { frameTicks } from '../../basics/time';
import { card, PAL, sceneOf } from '../../testing/scenes';

const scene = sceneOf(['Moon', 'Tide', 'Lamp', 'Gate', 'Heron'].map((name, i) => card('abcde'[i], { name })));
const frames = (count: number): number => count * frameTicks(PAL);
const say = (finding: Finding): string => describeFinding(finding, scene);
const [one, two, all] = [['a'], ['a', 'b'], ['a', 'b', 'c', 'd', 'e']];

describe('a finding as a sentence', () => {
  test('names its layers: one, two, and the first three of many; by their id where they are gone', () => {
    expect(say({ code: 'locked', layers: one })).toBe('“Moon” is locked and stays as it is.');
    expect(say({ code: 'locked', layers: two })).toBe('“Moon” and “Tide” are locked and stay as they are.');
    expect(say({ code: 'hidden', layers: ['a', 'b', 'c'] })).toBe(
      '“Moon”, “Tide” and “Lamp” are hidden and stay as they are.',
    );
    expect(say({ code: 'guides', layers: all })).toBe('“Moon”, “Tide”, “Lamp” and 2 more are guides and take no part.');
    expect(say({ code: 'with-group', layers: ['gone'] })).toBe('“gone” moves with its group.');
  });

  test.each<[string, Finding, string, Finding?]>([
    ['vanished', { code: 'vanished', layers: one }, 'One picked layer is no longer', { code: 'vanished', layers: two }],
    [
      'left alone',
      { code: 'left-alone', layers: one },
      'has keys already and is left alone.',
      { code: 'left-alone', layers: two },
    ],
    [
      'no data',
      { code: 'no-data', column: 'speaker', layers: one },
      'data column “speaker” and takes the preset’s default. Paste data for it.',
      { code: 'no-data', column: 'speaker', layers: two },
    ],
    [
      'no number',
      { code: 'no-number', column: 'rank', layers: one },
      'and keeps its own. Write one such as 4',
      { code: 'no-number', column: 'rank', layers: two },
    ],
    [
      'no colour',
      { code: 'no-colour', column: 'tone', layers: one },
      'and keeps its own. Write one such as #f3c98b',
      { code: 'no-colour', column: 'tone', layers: two },
    ],
    [
      'no part',
      { code: 'no-part', part: 'stroke', layers: one },
      'or give it one first.',
      { code: 'no-part', part: 'stroke', layers: two },
    ],
    ['no path', { code: 'no-path', layers: one }, 'Give it one in the layer panel.', { code: 'no-path', layers: two }],
    ['no words', { code: 'no-words', layers: one }, '“Moon” has no words', { code: 'no-words', layers: two }],
    [
      'no number shown',
      { code: 'no-number-shown', layers: one },
      'Write # in its words',
      { code: 'no-number-shown', layers: two },
    ],
    [
      'no distance',
      { code: 'no-distance', layers: one },
      '“Moon” does not travel',
      { code: 'no-distance', layers: two },
    ],
    ['no room', { code: 'no-room', layers: one, at: frames(30) }, 'would end before it begins, at 1:05', undefined],
    [
      'short for both',
      { code: 'short-for-both', layers: one, at: 0 },
      'becomes too short for entrance and exit, first at 0:00. Make it longer',
      { code: 'short-for-both', layers: two, at: 0 },
    ],
    [
      'outside its span',
      { code: 'outside-layer', layers: one, at: frames(5), by: frames(3) },
      'has keys up to 3 f outside the layer',
      { code: 'outside-layer', layers: two, at: 0, by: frames(3) },
    ],
    [
      'outside the scene',
      { code: 'outside-scene', layers: one, at: 0, by: frames(1) },
      'ends up to 1 f outside the scene.',
      { code: 'outside-scene', layers: two, at: 0, by: frames(1) },
    ],
    [
      'meeting',
      { code: 'entrance-meets-exit', layers: one, at: frames(25), by: frames(4) },
      'starts its exit 4 f before the entrance ends, at 1:00.',
      { code: 'entrance-meets-exit', layers: two, at: 0, by: frames(4) },
    ],
    [
      'twice in',
      { code: 'twice', layers: one, at: 0, operation: 'bring-in' },
      'appears twice: an earlier run brings it in too',
      { code: 'twice', layers: two, at: 0, operation: 'bring-in' },
    ],
    [
      'twice out',
      { code: 'twice', layers: one, at: 0, operation: 'send-out' },
      'leaves twice: an earlier run sends it out too',
      { code: 'twice', layers: two, at: 0, operation: 'send-out' },
    ],
    [
      'too short',
      { code: 'too-short', layers: one, at: 0 },
      'has too few frames',
      { code: 'too-short', layers: two, at: 0 },
    ],
    [
      'off the grid',
      { code: 'off-grid', layers: one, at: frames(2) },
      'has keys between frames, first at 0:02.',
      { code: 'off-grid', layers: two, at: 0 },
    ],
    [
      'file gone',
      { code: 'file-gone', layers: one },
      'shows a file that is no longer kept.',
      { code: 'file-gone', layers: two },
    ],
    ['matte gone', { code: 'matte-gone', layers: one }, 'so nothing of it shows.', { code: 'matte-gone', layers: two }],
    [
      'no arrival',
      { code: 'rig-idle', layers: one, why: 'no-keys', channels: [] },
      'Bring it in first',
      { code: 'rig-idle', layers: two, why: 'no-keys', channels: [] },
    ],
    [
      'no speed',
      { code: 'rig-idle', layers: one, why: 'no-speed', channels: [] },
      '“Moon” arrives without any speed',
      { code: 'rig-idle', layers: two, why: 'no-speed', channels: [] },
    ],
    [
      'by hand',
      { code: 'kept-by-hand', layers: one, keys: 1 },
      'One key changed by hand on “Moon” stays as it is.',
      { code: 'kept-by-hand', layers: one, keys: 7 },
    ],
    [
      'ends outside',
      { code: 'ends-off-frame', layers: one, at: 0 },
      'comes to rest outside the frame',
      { code: 'ends-off-frame', layers: two, at: 0 },
    ],
    [
      'uncovered',
      { code: 'uncovered', layers: one, at: 0 },
      'leaves part of the frame uncovered',
      { code: 'uncovered', layers: two, at: 0 },
    ],
    [
      'steps',
      { code: 'big-steps', layers: one, at: 0, step: 311.7 },
      'jumps up to 312 px in one frame',
      { code: 'big-steps', layers: two, at: 0, step: 1 },
    ],
  ])('%s: one and many', (_, single, words, many) => {
    expect(say(single)).toContain(words);
    // Of many it says something else, and never “it” or “has” of two.
    if (many) {
      expect(say(many)).not.toBe(say(single));
      expect(say(many)).not.toContain(words);
    }
  });

  test.each<[Finding, string]>([
    [{ code: 'nothing-picked' }, 'Choose layers by tag, name or kind, or tick them'],
    [{ code: 'unknown-preset', id: 'x' }, 'no preset “x”'],
    [{ code: 'unknown-rig', id: 'y' }, 'no rig “y”'],
    [
      { code: 'wrong-phase', preset: 'Fade', phase: 'exit', operation: 'bring-in' },
      '“Fade” is made for another part (exit) than “bring in”',
    ],
    [{ code: 'draft-preset', preset: 'Fade' }, 'publish it to apply it'],
    [{ code: 'rig-broken', rig: 'Sway', message: 'Why.' }, 'The rig “Sway” cannot run. Why.'],
    [{ code: 'look-broken', look: 'Dim', message: 'Why.' }, 'The look “Dim” cannot be put on. Why.'],
    [{ code: 'rig-circle', layers: two, channels: ['rotation', 'opacity'] }, 'in a circle on rotation, opacity'],
    [{ code: 'rig-not-finite', layers: one, channel: 'rotation', at: frames(26) }, 'for “Moon” at 1:01'],
    [{ code: 'nothing-to-turn', what: 'thin-out' }, 'nothing to thin out'],
    [{ code: 'nothing-to-turn', what: 'turn-into-keys' }, 'No rig drives the picked layers'],
    [
      { code: 'turned-into-keys', layers: one, keys: 1, channel: 'position.x', error: 0.2, at: 0 },
      'One key; at worst 0.2 px off',
    ],
    [
      { code: 'turned-into-keys', layers: one, keys: 12, channel: 'rotation', error: 0.2, at: 0 },
      '12 keys; at worst 0.2°',
    ],
    [{ code: 'bad-field', field: 'Gap', text: 'x', message: 'Why.' }, 'Gap: “x” does not work. Why.'],
    [{ code: 'unknown-parameter', preset: 'Fade', name: 'tilt' }, 'no parameter @tilt'],
    [{ code: 'cannot-hold', layers: one, what: 'time' }, '147 days'],
    [{ code: 'cannot-hold', layers: one, what: 'value' }, 'too large to be held'],
    [{ code: 'cannot-hold', layers: one, what: 'keys' }, '100,000 keys'],
    [{ code: 'limited', parameter: 'rise', layers: one }, '@rise was brought within its limits for “Moon”'],
    [{ code: 'not-finite', slot: 'scale at Peak', layers: one }, 'scale at Peak gives no finite number'],
    [
      { code: 'cannot-meet', field: 'Finish', wanted: frames(50), nearest: frames(75), why: 'frames' },
      'Finish: 2:00 cannot be met. Each needs at least one frame. The nearest that can is 3:00.',
    ],
    [{ code: 'cannot-meet', field: 'Window', wanted: 0, nearest: 0, why: 'before-scene' }, 'before the scene does'],
    [
      { code: 'cannot-meet', field: 'Window', wanted: 0, nearest: 0, why: 'longer' },
      'Even all at once they need longer',
    ],
    [{ code: 'no-cues', at: frames(10) }, 'no cue at or after 0:10'],
    [{ code: 'cues-run-out', cues: 3, places: 9 }, '3 cues for 9 starts'],
    [{ code: 'one-place', layers: two, of: 'starts' }, 'so they start together'],
    [{ code: 'one-place', layers: two, of: 'looks' }, 'so none differs from the next'],
    [{ code: 'unknown-pick' }, 'no longer has the saved pick'],
    [{ code: 'unknown-run', run: 'r' }, 'no longer in the scene'],
    [{ code: 'revision-missing', preset: 'Fade', revision: 3 }, 'Revision 3 of “Fade”'],
    [{ code: 'nothing-to-adjust' }, 'No key of the picked layers meets this rule'],
    [{ code: 'adjusted', keys: 1, on: 1, changed: 1, gone: 0 }, '1 key on 1 layer adjusted; 1 is other than before.'],
    [{ code: 'adjusted', keys: 9, on: 2, changed: 3, gone: 6 }, 'adjusted; 3 are other than before, 6 are gone.'],
    [{ code: 'adjusted', keys: 9, on: 2, changed: 0, gone: 1 }, 'adjusted; 1 is gone.'],
    [
      { code: 'adjusted', keys: 40, on: 12, changed: 3, gone: 0 },
      '40 keys on 12 layers adjusted; 3 are other than before.',
    ],
    [{ code: 'adjusted', keys: 2, on: 1, changed: 0, gone: 0 }, 'all of them are as they were'],
    [
      { code: 'rounded', layers: one, keys: 1, most: frames(1) / 3 },
      '1 key was between frames and moved by at most 33.3 % of a frame.',
    ],
    [
      { code: 'rounded', layers: one, keys: 9, most: frames(1) / 2 },
      '9 keys were between frames and moved by at most 50 %',
    ],
    [{ code: 'nothing-to-pass', layer: 'a', what: 'motion', stops: true }, '“Moon” has no keys'],
    [{ code: 'nothing-to-pass', layer: 'b', what: 'data', stops: true }, '“Tide” has no data'],
    [{ code: 'nothing-to-clear' }, 'Nothing would change'],
    [{ code: 'too-many-copies', count: 20_000, most: 10_000 }, 'That would be 20,000 layers; at most 10,000'],
    [{ code: 'source-gone' }, 'no longer there'],
    [{ code: 'item-gone', kind: 'palette' }, 'The palette that this style uses'],
    [{ code: 'collide', layers: two, at: frames(3) }, 'run into each other on screen, first at 0:03'],
    [{ code: 'flashes', layers: one, at: 0 }, 'more than three times in a second'],
    [
      {
        code: 'curve-waiting',
        curve: 'c',
        easing: { type: 'linear' },
        at: 0,
        name: 'Snap',
        to: 4,
        keys: 1,
        layers: one,
      },
      '“Snap” has a newer revision: 4. 1 key still has an older one.',
    ],
    [
      {
        code: 'curve-waiting',
        curve: 'c',
        easing: { type: 'linear' },
        at: 0,
        name: 'Snap',
        to: 4,
        keys: 6,
        layers: one,
      },
      '6 keys still have an older one.',
    ],
    [
      { code: 'update-waiting', run: 'r', preset: 'Fade', from: 1, to: 2, layers: one },
      'newer revision: 2, this run uses 1',
    ],
    [
      { code: 'update-waiting', run: 'r', preset: 'Fade', from: 2, to: 2, layers: one },
      'curve or house value that “Fade” uses was changed',
    ],
  ])('%p', (finding, words) => {
    expect(say(finding)).toContain(words);
  });

  test('says what a law of motion lacks, by its own words', () => {
    const trouble = (why: Extract<Finding, { code: 'movement-trouble' }>['why']): string =>
      say({ code: 'movement-trouble', movement: 'Bounce', why, layers: one });
    expect(trouble('no-gravity')).toBe(
      'Bounce on “Moon”: without gravity above 0 it would never come down. Set a gravity such as 5000.',
    );
    expect(trouble('never-rests')).toContain('less than 100 % of its speed');
    expect(trouble('never-settles')).toContain('without damping');
    expect(trouble('no-pace')).toContain('0 times a second');
  });
});
