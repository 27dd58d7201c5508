import { HOLD, LINEAR, easingSchema, springPoints, type Easing, type SpringEasing } from './easing';
import type { LinearPoint } from './linear';

/** An easing that was read from text, or why it was not, as a sentence. */
export type EasingTextResult =
  { readonly ok: true; readonly easing: Easing } | { readonly ok: false; readonly message: string };

const KEYWORDS: Readonly<Record<string, Easing>> = {
  linear: LINEAR,
  hold: HOLD,
  ease: { type: 'bezier', x1: 0.25, y1: 0.1, x2: 0.25, y2: 1 },
  'ease-in': { type: 'bezier', x1: 0.42, y1: 0, x2: 1, y2: 1 },
  'ease-out': { type: 'bezier', x1: 0, y1: 0, x2: 0.58, y2: 1 },
  'ease-in-out': { type: 'bezier', x1: 0.42, y1: 0, x2: 0.58, y2: 1 },
  'step-start': { type: 'steps', count: 1, jump: 'start' },
  'step-end': { type: 'steps', count: 1, jump: 'end' },
};

const JUMPS: Readonly<Record<string, 'start' | 'end' | 'none' | 'both'>> = {
  start: 'start',
  end: 'end',
  'jump-start': 'start',
  'jump-end': 'end',
  'jump-none': 'none',
  'jump-both': 'both',
};

function checked(candidate: unknown): EasingTextResult {
  const parsed = easingSchema.safeParse(candidate);
  if (parsed.success) return { ok: true, easing: parsed.data };
  const issue = parsed.error.issues[0];
  const where = issue.path.length > 0 ? `${issue.path.join('.')}: ` : '';
  return { ok: false, message: `The easing is out of range. ${where}${issue.message}` };
}

function parseBezier(parts: readonly string[]): EasingTextResult {
  const [x1, y1, x2, y2] = parts.map(Number);
  if (parts.length !== 4 || ![x1, y1, x2, y2].every(Number.isFinite)) {
    return { ok: false, message: 'cubic-bezier() takes four numbers, such as cubic-bezier(0.3, 0, 0.2, 1).' };
  }
  return checked({ type: 'bezier', x1, y1, x2, y2 });
}

function parseSteps(parts: readonly string[]): EasingTextResult {
  const jump = JUMPS[parts[1] ?? 'end'];
  if (parts.length > 2 || !jump || !/^\d+$/.test(parts[0])) {
    return { ok: false, message: 'steps() takes a whole number and where to jump, such as steps(4, jump-end).' };
  }
  return checked({ type: 'steps', count: Number(parts[0]), jump });
}

interface Stop {
  readonly output: number;
  readonly inputs: readonly number[];
}

function parseStop(text: string): Stop | null {
  const words = text.split(/\s+/);
  const inputs = words.filter((word) => word.endsWith('%')).map((word) => Number(word.slice(0, -1)) / 100);
  const outputs = words.filter((word) => !word.endsWith('%')).map(Number);
  const valid = outputs.length === 1 && inputs.length <= 2 && [...inputs, ...outputs].every(Number.isFinite);
  return valid ? { output: outputs[0], inputs } : null;
}

/**
 * Fills in the inputs that a linear() leaves out: first 0, last 1, never going back, the others spread evenly.
 * Source: CSS Easing Functions Level 2, section 2.2.
 */
export function fillInputs(stops: readonly Stop[]): LinearPoint[] {
  const points = stops.flatMap(({ output, inputs }): { input: number | null; output: number }[] =>
    inputs.length === 0 ? [{ input: null, output }] : inputs.map((input) => ({ input, output })),
  );
  if (points.length === 0) return [];
  points[0].input ??= 0;
  points[points.length - 1].input ??= 1;
  let largest = -Infinity;
  for (const point of points) {
    if (point.input === null) continue;
    largest = Math.max(largest, point.input);
    point.input = largest;
  }
  return points.map(({ input, output }, i) => ({ input: input ?? spreadInput(points, i), output }));
}

function spreadInput(points: readonly { input: number | null }[], i: number): number {
  let before = i;
  while (points[before].input === null) before--;
  let after = i;
  while (points[after].input === null) after++;
  const [a, b] = [points[before].input as number, points[after].input as number];
  return a + ((b - a) * (i - before)) / (after - before);
}

function parseLinear(parts: readonly string[]): EasingTextResult {
  const stops = parts.map(parseStop);
  if (stops.length < 2 || stops.some((stop) => stop === null)) {
    return { ok: false, message: 'linear() takes two or more stops, such as linear(0, 0.8 40%, 1).' };
  }
  return checked({ type: 'points', points: fillInputs(stops as Stop[]) });
}

const STANDARD_WITHIN = 0.001;

/** `spring(0.4)` or `spring(0.4, 0.1%)`: damping ratio, and how close it counts as settled. Not CSS, but our own. */
function parseSpring(parts: readonly string[]): EasingTextResult {
  const damping = Number(parts[0]);
  const within = parts[1] === undefined ? STANDARD_WITHIN : Number(parts[1].replace(/%$/, '')) / 100;
  if (parts.length > 2 || parts[0] === '' || !Number.isFinite(damping) || !Number.isFinite(within)) {
    return { ok: false, message: 'spring() takes a damping ratio, such as spring(0.4), and within what it settles.' };
  }
  return checked({ type: 'spring', damping, within });
}

/** Reads an easing written as CSS text, `hold` or `spring(…)`. Fails with a sentence that says what was expected. */
export function parseEasing(text: string): EasingTextResult {
  const trimmed = text.trim().toLowerCase();
  const keyword = Object.hasOwn(KEYWORDS, trimmed) ? KEYWORDS[trimmed] : undefined;
  if (keyword) return { ok: true, easing: keyword };
  const call = /^(cubic-bezier|linear|steps|spring)\((.*)\)$/s.exec(trimmed);
  const parts = call ? call[2].split(',').map((part) => part.trim()) : [];
  switch (call?.[1]) {
    case 'cubic-bezier':
      return parseBezier(parts);
    case 'steps':
      return parseSteps(parts);
    case 'linear':
      return parseLinear(parts);
    case 'spring':
      return parseSpring(parts);
    default:
      return {
        ok: false,
        message: `“${text.trim()}” is not an easing. Write linear, hold, cubic-bezier(…), linear(…), steps(…) or spring(…).`,
      };
  }
}

/** Shortest decimal text that reads back as the same number, without an exponent. */
function number(value: number): string {
  const text = String(value);
  return text.includes('e') ? value.toFixed(12).replace(/\.?0+$/, '') : text;
}

/**
 * CSS text of an easing. `hold` becomes `steps(1, jump-end)`, which is the same curve, and a spring a `linear()` within
 * 0.05 %; free handles have no CSS text between equal values and give null (see `asBezier` for different ones).
 */
export function formatEasing(easing: Easing): string | null {
  switch (easing.type) {
    case 'hold':
      return 'steps(1, jump-end)';
    case 'linear':
      return 'linear';
    case 'bezier':
      return `cubic-bezier(${[easing.x1, easing.y1, easing.x2, easing.y2].map(number).join(', ')})`;
    case 'points':
      return `linear(${easing.points.map((p) => `${number(p.output)} ${number(p.input * 100)}%`).join(', ')})`;
    case 'steps':
      return `steps(${easing.count}, jump-${easing.jump})`;
    case 'spring':
      return formatEasing(springPoints(easing));
    case 'handles':
      return null;
  }
}

function springText({ damping, within }: SpringEasing): string {
  return `spring(${number(damping)}, ${number(Number((within * 100).toFixed(6)))}%)`;
}

/** Text that `parseEasing` reads back as the same easing; null for free handles, which have no text. */
export function easingText(easing: Easing): string | null {
  if (easing.type === 'hold') return 'hold';
  return easing.type === 'spring' ? springText(easing) : formatEasing(easing);
}
