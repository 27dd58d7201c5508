import { describe, expect, test } from '@jest/globals';
import { card, sceneOf } from '../../testing/scenes';
import { apply, invert } from '../../scene/edit';
import { filesOf, type FileInPlace, type Layer, type Mask, type TextSource } from '../../scene/layer';
import type { Scene } from '../../scene/scene';
import { joinWords, replacingEdits, splitWords, type MeasurePieces } from '.';

const name = (digit: string, ending: string): string => `${digit.repeat(64)}.${ending}`;
const [OLD, NEW] = [name('a', 'ttf'), name('b', 'woff2')];
const reed: FileInPlace = { kind: 'font', font: 'Reed', fontFile: `files/${NEW}` };
const words = card('w', {
  kind: 'word',
  rest: { 'size.x': 300, 'size.y': 60 },
  source: { type: 'text', text: 'Tide', font: 'Heron', fontFile: `files/${OLD}`, weight: 600, size: 40, align: 'left' },
});

/** A font whose letters are as wide as its name is long, in tens of px. */
const measure: MeasurePieces = (_group, { text, font }) =>
  [...text].map((letter, i) => {
    const width = font.length * 10;
    return { text: letter, left: i * width, top: 0, width, height: 50, baseline: 40 };
  });

function done(scene: Scene, edits: Parameters<typeof apply>[1]): Scene {
  const result = apply(scene, edits);
  if (!result.ok) throw new Error(result.problem.code);
  return result.scene;
}

function split(layer: Layer): Scene {
  const scene = sceneOf([layer]);
  const result = splitWords(scene, layer.id, 'letters', measure(layer, layer.source as TextSource, 'letters'));
  if (!result.ok) throw new Error(result.message);
  return done(scene, result.edits);
}

const put = (scene: Scene): Scene => done(scene, replacingEdits(scene, `files/${OLD}`, reed, measure));
const left = ({ rest }: Layer): number => (rest['position.x'] ?? 0) - (rest['size.x'] ?? 0) / 2;

describe('a font in the place of another', () => {
  test('letters that words were split into stand where the new font sets them', () => {
    const [group, ...letters] = put(split(words)).layers;
    expect(letters.map(left)).toEqual([0, 40, 80, 120]);
    expect(letters.map(({ source }) => (source as TextSource).font)).toEqual(['Reed', 'Reed', 'Reed', 'Reed']);
    expect(group.split?.source.fontFile).toBe(`files/${NEW}`);
  });

  test('and are joined again to words in it', () => {
    const after = put(split(words));
    const [group] = after.layers;
    const pieces = measure(group, group.split?.source as TextSource, 'letters');
    const joined = joinWords(after, 'w', pieces);
    expect(joined.ok ? '' : joined.message).toBe('');
    const [layer] = joined.ok ? done(after, joined.edits).layers : [];
    expect(layer.source).toEqual({ ...words.source, font: 'Reed', fontFile: `files/${NEW}` });
  });

  test('a letter with a font of its own keeps it, and stands in its place', () => {
    const scene = split(words);
    const own = { ...(scene.layers[2].source as TextSource), font: 'Sedge', fontFile: `files/${name('c', 'otf')}` };
    const after = put(done(scene, [{ type: 'set-layer', layer: scene.layers[2].id, fields: { source: own } }]));
    expect(after.layers[2].source).toEqual(own);
    expect(left(after.layers[2])).toBe(40);
  });

  test('nothing uses the old one any more, and all is taken back by the inverse', () => {
    const scene = split(words);
    expect(scene.layers.flatMap(filesOf)).toContain(OLD);
    const edits = replacingEdits(scene, `files/${OLD}`, reed, measure);
    const after = done(scene, edits);
    expect(new Set(after.layers.flatMap(filesOf))).toEqual(new Set([NEW]));
    expect(done(after, invert(scene, edits) ?? [])).toEqual(scene);
  });
});

describe('another picture in a mask', () => {
  const mask: Mask = { shape: 'picture', how: 'add', x: 0.5, y: 0.5, width: 1, height: 1, turn: 0, soft: 0 };
  const [grey, dusk] = [name('d', 'png'), name('e', 'png')];
  const masked = (href: string): Mask => ({ ...mask, picture: { href: `files/${href}`, by: 'transparency' } });
  const picture: FileInPlace = {
    kind: 'shown',
    source: { type: 'picture', href: `files/${dusk}`, width: 4, height: 3 },
  };

  test('a mask that a run covers is another one, too, and shows once the run is gone', () => {
    // A run put other masks on the layer; what it had before stands in its base.
    const covered = card('m', { look: { masks: [mask] }, base: { look: { masks: [masked(grey)] } } });
    const scene = sceneOf([covered]);
    const edits = replacingEdits(scene, `files/${grey}`, picture, measure);
    const [layer] = done(scene, edits).layers;
    expect(layer.base?.look?.masks).toEqual([masked(dusk)]);
    expect(layer.look.masks).toEqual([mask]);
    expect(filesOf(layer)).toEqual([dusk]);
  });

  test('what uses neither stays the same object', () => {
    const plain = sceneOf([card('p', { base: { look: { masks: [masked(dusk)] } } }), words]);
    expect(replacingEdits(plain, `files/${grey}`, picture, measure)).toEqual([]);
  });
});
