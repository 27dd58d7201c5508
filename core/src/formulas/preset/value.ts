import { oklabFromCss, cssFromOklab, type Oklab } from '../../basics/colour';
import { easingText, parseEasing, type Easing } from '../../basics/easing';
import type { Box } from '../../basics/transform';
import type { Lookup } from './lookup';
import type { Parameter } from './preset';
import { COLOUR_PARTS, LAYER_PARTS } from './scope';

/** A parameter's value: a number in base units (px, seconds, degrees; a switch 0 or 1), or what its kind is. */
export type ParameterValue =
  | number
  | { readonly colour: Oklab }
  | { readonly option: string }
  | { readonly curve: Easing }
  /** Null is the layer itself. */
  | { readonly layer: string | null };

/** A parameter’s value that was read from text, or why it was not, as a sentence. */
export type ReadValue =
  { readonly ok: true; readonly value: ParameterValue } | { readonly ok: false; readonly message: string };

/** What stands for "no other layer". */
export const NO_LAYER = 'none';

const LIBRARY_CURVE = /^curve\s+([A-Za-z0-9_-]{1,64})$/;

function readCurve(text: string, lookup: Lookup): ReadValue {
  const id = LIBRARY_CURVE.exec(text.trim())?.[1];
  if (id === undefined) {
    const result = parseEasing(text);
    return result.ok ? { ok: true, value: { curve: result.easing } } : result;
  }
  const found = lookup.curve(id);
  if (found) return { ok: true, value: { curve: found.easing } };
  return { ok: false, message: `The library has no curve “${id}”. Choose another one.` };
}

/**
 * Reads the value of a parameter that is no number: a CSS colour, an option's name, an easing as text or
 * `curve ID` for one of the library, a layer's id. Fails with a sentence.
 */
export function readValue(parameter: Parameter, text: string, lookup: Lookup): ReadValue {
  switch (parameter.kind) {
    case 'colour': {
      const colour = oklabFromCss(text);
      return colour
        ? { ok: true, value: { colour } }
        : { ok: false, message: `“${text}” is not a colour. Write one such as #f3c98b.` };
    }
    case 'choice': {
      const names = (parameter.options ?? []).map(({ name }) => name);
      if (names.includes(text)) return { ok: true, value: { option: text } };
      return { ok: false, message: `“${text}” is no option here. There are ${names.join(', ')}.` };
    }
    case 'curve':
      return readCurve(text, lookup);
    case 'layer':
      return { ok: true, value: { layer: text.trim() === NO_LAYER || text.trim() === '' ? null : text.trim() } };
    default:
      throw new Error(`A parameter of kind ${parameter.kind} is read as a formula.`);
  }
}

/** A value as data to show: a number in base units, or text. */
export function plainValue(value: ParameterValue): number | string {
  if (typeof value === 'number') return value;
  if ('colour' in value) return cssFromOklab(value.colour);
  if ('option' in value) return value.option;
  if ('layer' in value) return value.layer ?? NO_LAYER;
  return easingText(value.curve) ?? 'free handles';
}

/** The values of a parameter's inputs, as pairs of their names (without @) and numbers; of a curve none. */
export function inputValues(
  { name, options }: Parameter,
  value: Exclude<ParameterValue, { readonly curve: Easing }>,
  boxOf: (layer: string | null) => Box,
): (readonly [string, number])[] {
  if (typeof value === 'number') return [[name, value]];
  if ('colour' in value) return COLOUR_PARTS.map((part) => [`${name}.${part}`, value.colour[part]]);
  if ('option' in value) {
    return (options ?? []).map((option) => [`${name}.${option.name}`, Number(option.name === value.option)]);
  }
  const { left, right, top, bottom } = boxOf(value.layer);
  const parts = {
    left,
    right,
    top,
    bottom,
    x: (left + right) / 2,
    y: (top + bottom) / 2,
    width: right - left,
    height: bottom - top,
  };
  return LAYER_PARTS.map((part) => [`${name}.${part}`, parts[part]]);
}
