import { reverseEasing, type Easing } from '../../basics/easing';
import {
  compilePreset,
  type Cell,
  type Moment,
  type Movement,
  type Preset,
  type PresetEasing,
} from '../../formulas/preset';

/** A formula that needs no brackets as what is taken away: no sum, no difference, no choice. */
function isProduct(text: string): boolean {
  return !/[+\-−<>=≤≥≠]|\b(if|and|or|not|let|mod)\b|\n|;|#/.test(text);
}

/** Text of the preset's end: the length where a moment is it, else the formula of the latest moment. */
function endText(preset: Preset): string {
  const length = `@${preset.lasts ?? ''}`;
  return preset.moments.some(({ at }) => at.trim() === length) ? length : latestMoment(preset).at;
}

/** The moment that comes last with every parameter at its default, at 25 frames a second over ten seconds. */
function latestMoment(preset: Preset): Moment {
  const result = compilePreset(preset);
  const compiled = result.ok ? result.compiled : result.rest;
  const inputs = new Float64Array(compiled.scope.size);
  inputs[0] = 1 / 25;
  const set = (name: string, value: number): void => {
    const place = compiled.scope.places.get(name);
    if (place !== undefined) inputs[place] = value;
  };
  set('layer.length', 10);
  set('count', 1);
  for (const { parameter, standard } of compiled.parameters) set(`@${parameter.name}`, standard.evaluate(inputs));
  const seconds = compiled.moments.map((moment) => moment.evaluate(inputs));
  const latest = seconds.reduce((best, second, i) => (second >= seconds[best] ? i : best), 0);
  return preset.moments[latest];
}

function mirroredTime(at: string, end: string): string {
  const text = at.trim();
  if (text === end) return '0f';
  if (/^0(f|s|ms)?$/.test(text)) return end;
  return isProduct(text) ? `${end} - ${text}` : `${end} - (${text})`;
}

/** A preset's easing played backwards. */
export function reversePresetEasing(ease: PresetEasing): PresetEasing {
  if (ease.type !== 'curve' && ease.type !== 'parameter') return reverseEasing(ease as Easing);
  const { reversed, ...rest } = ease;
  return reversed === true ? rest : { ...rest, reversed: true };
}

/** Cells backwards; each now leaves by the easing by which it was reached. */
function mirroredCells(cells: readonly Cell[]): Cell[] {
  return cells
    .map((cell, i) => ({ ...cell, ease: i === 0 ? cell.ease : reversePresetEasing(cells[i - 1].ease) }))
    .reverse();
}

/** A movement backwards: from where it ended to where it set out. */
function mirroredMovement({ reversed, ...movement }: Movement): Movement {
  const turned = reversed === true ? movement : { ...movement, reversed: true as const };
  return 'to' in turned ? { ...turned, from: turned.to, to: turned.from } : turned;
}

function exitName(name: string, index: number, count: number): string {
  if (index === 0 && /^start$/i.test(name)) return 'Gone';
  return index === count - 1 && /^end$/i.test(name) ? 'Rest' : name;
}

/**
 * The exit that mirrors an entrance in time: every moment as long before the end as it was after the beginning, every
 * easing backwards. It hangs on the layer's out point, and `matches` names the entrance.
 */
export function matchingExit(entrance: Preset, id: string): Preset {
  const end = endText(entrance);
  const count = entrance.moments.length;
  const moments = entrance.moments.map(({ at, name, ...moment }, i): Moment => ({
    ...moment,
    name: exitName(name, i, count),
    at: mirroredTime(at, end),
  }));
  return {
    ...entrance,
    phase: 'exit',
    hang: 'out',
    matches: id,
    moments: moments.reverse(),
    rows: entrance.rows.map((row) => ({ ...row, cells: mirroredCells(row.cells) })),
    ...(entrance.movements ? { movements: entrance.movements.map(mirroredMovement) } : {}),
  };
}
