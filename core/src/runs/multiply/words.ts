import { pickWords } from '../pick';
import type { CopyEnd, CopyPlace, CopyPresets, MultiplyRecipe } from '../../scene/recipe';
import {
  degreeWords,
  field,
  momentWords,
  plain,
  readableTime,
  verbOf,
  type SentenceFacts,
  type SentencePart,
} from '../sentence';

function percent(share: number): string {
  return `${Math.round(share * 1_000) / 10} %`;
}

interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/** "the whole frame", "the left half", "50 % by 30 % of the frame": a part of the frame. */
function areaWords({ x, y, width, height }: Area): string {
  if (x === 0.5 && y === 0.5 && width === 1 && height === 1) return 'the whole frame';
  const isTall = y === 0.5 && height === 1;
  if (isTall && width === 0.5 && (x === 0.25 || x === 0.75)) return `the ${x === 0.25 ? 'left' : 'right'} half`;
  const isWide = x === 0.5 && width === 1;
  if (isWide && height === 0.5 && (y === 0.25 || y === 0.75)) return `the ${y === 0.25 ? 'upper' : 'lower'} half`;
  return `${percent(width)} by ${percent(height)} of the frame around ${percent(x)}, ${percent(y)}`;
}

/** "spread over the left half": where copies begin or end. */
export function copyPlaceWords(place: CopyPlace | CopyEnd): string {
  switch (place.by) {
    case 'stays':
      return 'where they began';
    case 'own':
      return 'their own place';
    case 'direction':
      return `${percent(place.distance)} of the frame along ${degreeWords(place.degrees)}${place.stray === 0 ? '' : `, ${degreeWords(place.stray)} to either side`}`;
    case 'spread':
      return `${place.shape === 'ellipse' ? 'an ellipse over' : 'a spread over'} ${areaWords(place)}`;
    case 'apart':
      return `places ${place.gap} px apart over ${areaWords(place)}`;
    case 'grid':
      return `${place.columns} columns over ${areaWords(place)}`;
    case 'line':
      return 'places along a line';
  }
}

function lifeWords({ life }: MultiplyRecipe): string {
  switch (life.by) {
    case 'fixed':
      return readableTime(life.length);
    case 'random':
      return `${readableTime(life.least)} to ${readableTime(life.most)}`;
    case 'rest':
      return 'until the end';
  }
}

function isPlain({ begin, end }: MultiplyRecipe['scale'], none: number): boolean {
  return [...begin, ...end].every((value) => value === none);
}

function rangeWords([from, to]: readonly [number, number], words: (value: number) => string): string {
  return from === to ? words(from) : `${words(from)} to ${words(to)}`;
}

function changeWords({ begin, end }: MultiplyRecipe['scale'], words: (value: number) => string): string {
  const isSame = begin[0] === end[0] && begin[1] === end[1];
  return isSame ? rangeWords(begin, words) : `${rangeWords(begin, words)}, then ${rangeWords(end, words)}`;
}

function presetWords({ presets }: CopyPresets, { shelf }: SentenceFacts): string {
  const names = presets.map(({ id }) => shelf.preset(id)?.name ?? 'a preset');
  const listed = names.length < 2 ? names.join('') : `${names.slice(0, -1).join(', ')} or ${names[names.length - 1]}`;
  return names.length > 1 ? `${listed} by chance` : listed;
}

function colourWords({ colours, how, outlined }: NonNullable<MultiplyRecipe['colours']>): string {
  const count = colours.length === 1 ? 'one colour' : `${colours.length} colours`;
  const ways = { turns: `${count} by turns`, random: `${count} by chance`, ramp: `a ramp of ${count}` };
  return outlined > 0 ? `${ways[how]}, ${percent(outlined)} as outlines` : ways[how];
}

/** The sentence of multiplying. */
export function multiplyParts(recipe: MultiplyRecipe, facts: SentenceFacts): SentencePart[] {
  const { copies, from, to, begin, end, scale, turn, opacity, colours, seed } = recipe;
  const { scene } = facts;
  const size = isPlain(scale, 1) ? 'their own size' : changeWords(scale, percent);
  return [
    field('operation', verbOf('multiply')),
    plain(' '),
    field('pick', pickWords(recipe.pick, null, scene)),
    plain(' into '),
    field('copies', copies === 1 ? '1 copy' : `${copies} copies`),
    plain(' between '),
    field('from-time', momentWords(from)),
    plain(' and '),
    field('to-time', momentWords(to)),
    plain(', each living '),
    field('life', lifeWords(recipe)),
    plain(', from '),
    field('begin', copyPlaceWords(begin)),
    plain(' to '),
    field('end', copyPlaceWords(end)),
    plain(', at '),
    field('size', size),
    ...(isPlain(turn, 0) ? [] : [plain(', turned '), field('turns', changeWords(turn, degreeWords))]),
    ...(isPlain(opacity, 1) ? [] : [plain(', '), field('clear', changeWords(opacity, percent)), plain(' opaque')]),
    ...(recipe.in ? [plain(', in by '), field('in', presetWords(recipe.in, facts))] : []),
    ...(recipe.out ? [plain(', out by '), field('out', presetWords(recipe.out, facts))] : []),
    ...(colours ? [plain(', coloured with '), field('colours', colourWords(colours))] : []),
    plain(', seed '),
    field('seed', String(seed)),
    plain('.'),
  ];
}
