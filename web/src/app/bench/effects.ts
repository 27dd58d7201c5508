import {
  channelOf,
  createShelf,
  curveFigures,
  figureWords,
  formatFrames,
  isPreset,
  literalWords,
  referencesOf,
  sampleTrack,
  tracksOf,
  type LibraryItem,
  type PresetItem,
  type Shelf,
} from '@wexikine/core';
import { createSpecimen, type Specimen } from '../drawing/specimen';

/** What a change of one item would do to another that takes from it. */
export interface Effect {
  readonly id: string;
  readonly name: string;
  readonly where: string;
  /** Before and after, in words. */
  readonly words: string;
}

const LOOKS = 40;
const SAME = 1e-6;

function first({ scene, layers }: Specimen) {
  return scene.layers.find(({ id }) => id === layers[0]);
}

/** The greatest difference of two specimens' curves, by channel, as words; null where they are the same. */
function motionWords(before: Specimen, after: Specimen): string | null {
  const [a, b] = [first(before), first(after)];
  if (!a || !b) return null;
  const { rate } = before.scene;
  const lengths = [before, after].map(({ from, to }) => formatFrames(to - from, rate));
  if (lengths[0] !== lengths[1]) return `lasts ${lengths[0]} → ${lengths[1]}`;
  for (const [channel, keys] of tracksOf(a)) {
    const other = b.tracks[channel];
    if (!other) continue;
    const { min, max } = { min: before.from, max: before.to };
    const times = Array.from({ length: LOOKS + 1 }, (_, i) => min + ((max - min) * i) / LOOKS);
    if (times.every((at) => Math.abs(sampleTrack(keys, at) - sampleTrack(other, at)) < SAME)) continue;
    const changed = figureWords(channel, curveFigures(keys, rate), curveFigures(other, rate)).filter((words) =>
      words.includes('→'),
    );
    return `${channelOf(channel).label}: ${changed[0] ?? 'another way there'}`;
  }
  return null;
}

function presetEffect(preset: PresetItem, item: LibraryItem, shelf: Shelf, next: Shelf): Effect | null {
  const references = referencesOf(preset).filter(({ id }) => id === item.id);
  const tied = preset.body.parameters.find(({ house }) => house === item.id);
  const where = references.length > 1 ? `${references.length} places` : references[0].where;
  const { id, name } = preset;
  const [before, after] = [shelf.houseText(item.id)?.text, next.houseText(item.id)?.text];
  if (tied && before !== undefined && after !== undefined && before !== after) {
    return { id, name, where, words: `@${tied.name} ${literalWords(before)} → ${literalWords(after)}` };
  }
  const words = motionWords(createSpecimen(preset, shelf), createSpecimen(preset, next));
  return words === null ? null : { id, name, where, words };
}

/** Everything that takes from an item and would come out differently, if the item were as given. Follows house values. */
export function effectsOf(item: LibraryItem, shelf: Shelf): Effect[] {
  const items = [...shelf.items.values()];
  const next = createShelf([...items.filter(({ id }) => id !== item.id), item]);
  const takers = items.filter((other) =>
    referencesOf(other).some(({ id, use }) => id === item.id && use !== 'matches'),
  );
  return takers.flatMap((taker): Effect[] => {
    if (isPreset(taker)) {
      const effect = presetEffect(taker, item, shelf, next);
      return effect ? [effect] : [];
    }
    const [before, after] = [shelf.houseText(taker.id)?.text ?? '', next.houseText(taker.id)?.text ?? ''];
    const own =
      before === after
        ? []
        : [
            {
              id: taker.id,
              name: taker.name,
              where: 'follows it',
              words: `${literalWords(before)} → ${literalWords(after)}`,
            },
          ];
    return own;
  });
}
