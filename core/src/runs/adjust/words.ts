import { channelsWords } from '../rig';
import { easingText } from '../../basics/easing';
import { pickWords } from '../pick';
import { variationWords } from '../run';
import {
  ADJUST_STEPS,
  stepNumber,
  type AdjustRecipe,
  type AdjustStep,
  type KeyRule,
  type Pivot,
} from '../../scene/recipe';
import { runMoments } from './picked';
import { field, orderWords, plain, readableTime, verbOf, type SentenceFacts, type SentencePart } from '../sentence';

const WHICH: Readonly<Record<KeyRule['which'], string>> = {
  all: 'all keys',
  first: 'the first keys',
  last: 'the last keys',
  inner: 'the keys in between',
  nth: 'the second keys',
};

const NUMBERS = ['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'];

function whichWords({ which, nth = 2 }: KeyRule): string {
  if (which !== 'nth') return WHICH[which];
  return NUMBERS[nth - 1] ? `the ${NUMBERS[nth - 1]} keys` : `the keys at place ${nth}`;
}

function valueWords({ low, high }: KeyRule): string {
  const [least, most] = [low, high].map((value) => String(value).replace('-', '−'));
  if (low !== undefined && high !== undefined) return `with values from ${least} to ${most}`;
  if (low !== undefined) return `with values of ${least} or more`;
  return high === undefined ? '' : `with values of ${most} or less`;
}

/** "the last keys of position from 1:00": which keys are adjusted. */
export function keyRuleWords(rule: KeyRule, runName = 'a run', momentName = rule.moment ?? ''): string {
  const words = [
    whichWords(rule),
    rule.channels ? `of ${channelsWords(rule.channels)}` : '',
    rule.phases ? `of each ${rule.phases.join(' and ')}` : '',
    rule.run === undefined ? '' : `that ${runName} made${rule.moment === undefined ? '' : ` at “${momentName}”`}`,
    rule.byHand === true ? 'set by hand' : '',
    rule.offGrid === true ? 'between frames' : '',
    rule.from === undefined ? '' : `from ${readableTime(rule.from)}`,
    rule.to === undefined ? '' : `up to ${readableTime(rule.to)}`,
    valueWords(rule),
  ];
  return words.filter((text) => text !== '').join(' ');
}

/** "about each first key". */
export function pivotWords(pivot: Pivot): string {
  switch (pivot.by) {
    case 'first':
      return 'about each first key';
    case 'last':
      return 'about each last key';
    case 'middle':
      return 'about each middle';
    case 'in':
      return 'about each in point';
    case 'out':
      return 'about each out point';
    case 'time':
      return `about ${readableTime(pivot.at)}`;
    case 'cue':
      return `about the cue “${pivot.cue}”`;
  }
}

function endsWords({ keepsEnds }: { readonly keepsEnds?: true | undefined }): string {
  return keepsEnds === true ? ', entrances and exits as long as they are' : '';
}

/** What stands before, between and after a step's numbers. */
function stepWords(step: AdjustStep): readonly string[] {
  switch (step.type) {
    case 'shift':
      return ['later by ', ''];
    case 'stretch':
      return ['stretched to ', ` ${pivotWords(step.pivot)}${endsWords(step)}`];
    case 'fit':
      return ['made to last ', ` ${pivotWords(step.pivot)}${endsWords(step)}`];
    case 'window':
      return ['made to fill ', ' to ', endsWords(step)];
    case 'restagger':
      return ['restaggered, one every ', ''];
    case 'close-gaps':
      return ['one after the other with a gap of ', ''];
    case 'hold':
      return ['each pose held for ', ''];
    case 'move-later':
      return ['from ', ' on moved by ', ''];
    case 'reverse':
      return ['reversed'];
    case 'retime':
      return [`retimed by ${easingText(step.ease) ?? 'a curve'}`];
    case 'spread':
      return [step.of === 'time' ? 'spread evenly in time' : 'with values spread evenly'];
    case 'jitter':
      return ['off by up to ', ' and by values up to ', ''];
    case 'whole-frames':
      return ['on whole frames'];
    case 'conform':
      return ['from ', ' frames a second, by frame'];
    case 'to-cues':
      return ['on the nearest cues'];
    case 'ease':
      return [`eased by ${easingText(step.ease) ?? 'a curve'}`];
    case 'strengths': {
      const way = { set: '', add: 'more by ', scale: 'scaled to ' }[step.way];
      if (step.parts === 'departure') return [`with departures ${way}`, ''];
      if (step.parts === 'arrival') return [`with arrivals ${way}`, ''];
      return [`with departures ${way}`, `, arrivals ${way}`, ''];
    }
    case 'freeze':
      return ['each held until the next'];
    case 'scale':
      return ['with values scaled to ', ` about ${{ rest: 'rest', mean: 'their mean', zero: '0' }[step.about]}`];
    case 'offset':
      return ['with values moved by ', ''];
    case 'mirror':
      return ['with values mirrored about rest'];
    case 'limit':
      return ['with values from ', ' to ', ''];
    case 'limit-speed':
      return ['no faster than ', ' a second'];
    case 'limit-acceleration':
      return ['starting and stopping no harder than ', ' a second each second'];
    case 'smooth':
      return ['smoothed by ', ''];
    case 'thin-out':
      return ['thinned out within ', ''];
  }
}

/** Numbers of a step that count as it is set. */
export function countingNumbers(step: AdjustStep): readonly string[] {
  const names = ADJUST_STEPS[step.type].numbers.map(({ name }) => name);
  if (step.type !== 'strengths' || step.parts === 'both') return names;
  return [step.parts === 'departure' ? 'leave' : 'reach'];
}

function stepParts(step: AdjustStep, { parameters }: AdjustRecipe): SentencePart[] {
  const words = stepWords(step);
  const numbers = countingNumbers(step).map((name) => stepNumber(step.id, name));
  const parts = numbers.flatMap((name, i): SentencePart[] => {
    const variation = parameters[name];
    return [
      i === 0 ? field(`step:${step.id}`, words[0].trim()) : plain(words[i].trimEnd()),
      plain(' '),
      field(`parameter:${name}`, variation ? variationWords(variation) : '…'),
    ];
  });
  const tail = words[numbers.length] ?? '';
  if (numbers.length === 0) return [field(`step:${step.id}`, words[0])];
  return tail === '' ? parts : [...parts, plain(tail)];
}

/** Orders count only for what goes along them. */
function goesAlong({ steps, parameters }: AdjustRecipe): boolean {
  return (
    steps.some(({ type }) => type === 'restagger' || type === 'close-gaps') ||
    Object.values(parameters).some(({ by }) => by === 'ramp' || by === 'cycle')
  );
}

/** The sentence of an adjustment: "Adjust all keys of 12 layers: later by 3 f, stretched to 120 % about each first key." */
export function adjustParts(recipe: AdjustRecipe, { count, scene }: SentenceFacts): SentencePart[] {
  const { run: id, moment } = recipe.keys;
  const run = scene.runs.findIndex((one) => one.id === id);
  const named = run < 0 ? undefined : runMoments(scene.runs[run]).find((one) => one.id === moment)?.name;
  return [
    field('operation', verbOf('adjust')),
    plain(' '),
    field('keys', keyRuleWords(recipe.keys, run < 0 ? 'a run' : `run ${run + 1}`, named)),
    plain(' of '),
    field('pick', pickWords(recipe.pick, count, scene)),
    ...(goesAlong(recipe) ? [plain(', '), field('order', orderWords(recipe.order))] : []),
    plain(': '),
    ...recipe.steps.flatMap((step, i) => [...(i === 0 ? [] : [plain(', then ')]), ...stepParts(step, recipe)]),
    plain('.'),
  ];
}
