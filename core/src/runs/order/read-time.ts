import type { SceneMoment } from '../../scene/recipe';
import type { Scene } from '../../scene/scene';
import { describeEntryProblem, parseTimeEntry, type Rate, type Ticks } from '../../basics/time';
import type { Finding } from '../finding';

/** A typed time in ticks, with what is wrong with it; 0 where it cannot be read. */
export interface ReadTime {
  readonly ticks: Ticks;
  readonly problem: Finding | null;
}

/** A time field as ticks, or the finding that says what is wrong with it. */
export function readTime(text: string, rate: Rate, field: string): ReadTime {
  const result = parseTimeEntry(text, rate);
  if (result.ok) return { ticks: result.entry.ticks, problem: null };
  const message = describeEntryProblem(result.problem, rate);
  return { ticks: 0, problem: { code: 'bad-field', field, text, message } };
}

/** A time of the scene, typed or by its cue. */
export function readMoment(moment: SceneMoment, scene: Scene, field: string): ReadTime {
  if (moment.by === 'time') return readTime(moment.at, scene.rate, field);
  const wanted = moment.cue.toLocaleLowerCase('en');
  const cue = scene.cues.find(({ name }) => name.toLocaleLowerCase('en') === wanted);
  if (cue) return { ticks: cue.at, problem: null };
  const message =
    scene.cues.length === 0
      ? 'The scene has no cues. Add one in the cues panel, or give a time.'
      : `The scene has no cue of this name. Choose one of its ${scene.cues.length}, or give a time.`;
  return { ticks: 0, problem: { code: 'bad-field', field, text: moment.cue, message } };
}

/** The problems among what was read. */
export function problemsOf(read: readonly (ReadTime | null)[]): Finding[] {
  return read.flatMap((entry) => (entry?.problem ? [entry.problem] : []));
}
