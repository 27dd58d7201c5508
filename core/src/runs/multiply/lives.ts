import { frameTicks, type Ticks } from '../../basics/time';
import type { LayerSpan } from '../../scene/layer';
import type { MultiplyRecipe } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import type { Finding } from '../finding';
import { problemsOf, readMoment, readTime } from '../order';
import type { Draw } from './draw';

/** When copies live, or why that cannot be. */
export type Lives =
  | { readonly ok: true; readonly spans: readonly LayerSpan[]; readonly window: LayerSpan }
  | { readonly ok: false; readonly findings: readonly Finding[] };

const bad = (field: string, text: string, message: string): Lives => ({
  ok: false,
  findings: [{ code: 'bad-field', field, text, message }],
});

/** The shortest and the longest life, in frames; 0 stands for as long as there is room. */
function readLife(
  { life }: MultiplyRecipe,
  scene: Scene,
): { texts: readonly string[]; least: Ticks; most: Ticks; problems: Finding[] } {
  if (life.by === 'rest') return { texts: [], least: 0, most: 0, problems: [] };
  const texts = life.by === 'fixed' ? [life.length, life.length] : [life.least, life.most];
  const [least, most] = texts.map((text) => readTime(text, scene.rate, 'Life'));
  return {
    texts,
    least: least.ticks,
    most: most.ticks,
    problems: problemsOf(life.by === 'fixed' ? [least] : [least, most]),
  };
}

/**
 * When each copy begins and ends, on whole frames: all within the window, each for at least a frame. In even steps the first
 * begins with the window, and the last ends with it.
 */
export function livesOf(recipe: MultiplyRecipe, scene: Scene, draw: Draw): Lives {
  const frame = frameTicks(scene.rate);
  const [from, to] = [readMoment(recipe.from, scene, 'From'), readMoment(recipe.to, scene, 'To')];
  const life = readLife(recipe, scene);
  const problems = [...problemsOf([from, to]), ...life.problems];
  if (problems.length > 0) return { ok: false, findings: problems };
  const [first, last] = [Math.round(from.ticks / frame), Math.round(to.ticks / frame)];
  const frames = last - first;
  const toText = recipe.to.by === 'time' ? recipe.to.at : recipe.to.cue;
  if (frames < 1)
    return bad(
      'To',
      toText,
      'The stretch needs at least one frame: each copy lives for one or more. Choose a later end.',
    );
  const [least, most] = [life.least, life.most].map((ticks) => Math.round(ticks / frame));
  if (recipe.life.by !== 'rest' && Math.min(least, most) < 1)
    return bad('Life', life.texts[least < 1 ? 0 : 1], 'Each copy lives for at least one frame. Write a longer time.');
  if (Math.max(least, most) > frames)
    return bad(
      'Life',
      life.texts[least > frames ? 0 : 1],
      `The stretch is only ${frames} frames long. Shorten the life, or choose a later end.`,
    );
  const { copies } = recipe;
  const spans = Array.from({ length: copies }, (_, copy): LayerSpan => {
    const lives = recipe.life.by === 'rest' ? 1 : Math.round(least + (most - least) * draw(copy, 'life'));
    const room = frames - lives;
    const share = recipe.starts === 'even' ? (copies === 1 ? 0 : copy / (copies - 1)) : draw(copy, 'start');
    const start = first + Math.round(room * share);
    const end = recipe.life.by === 'rest' ? last : start + lives;
    return { in: start * frame, out: end * frame };
  });
  return { ok: true, spans, window: { in: first * frame, out: last * frame } };
}
