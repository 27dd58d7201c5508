import { describe, expect, test } from '@jest/globals';
import type { Box } from '../../basics/transform';
import { paintOf, urlOf, type Definitions } from './colours';
import { STANDARD_STYLE } from './style';
import { elementsIn, readXml } from './xml';

const BOX: Box = { left: 20, top: 10, right: 60, bottom: 30 };
const STOPS = '<stop offset="0" stop-color="#ff0000"/><stop offset="1" stop-color="#0000ff"/>';

function definitions(text: string): Definitions {
  const read = readXml(`<svg>${text}</svg>`);
  if (!read.ok) throw new Error(read.message);
  return { byId: new Map(elementsIn(read.root).map((one) => [one.attributes['id'], one])), rules: [] };
}

const painted = (text: string, own = '', box: Box = BOX, opacity = 1) =>
  paintOf(text, opacity, STANDARD_STYLE, box, definitions(own));

/** The map of a gradient, rounded; what it is instead where it is none. */
function mapOf(attributes: string, { box = BOX, stops = STOPS, name = 'linearGradient' } = {}) {
  const paint = painted('url(#g)', `<${name} id="g" ${attributes}>${stops}</${name}>`, box);
  if (paint === null || paint === 'none') return paint;
  const { fill } = paint;
  return typeof fill === 'object' && fill !== null && 'map' in fill
    ? fill.map.map((number) => Math.round(number * 1e6) / 1e6)
    : fill;
}

describe('what a fill asks for', () => {
  test('nothing, a colour, or a colour instead of what is not there', () => {
    expect(painted('none')).toBe('none');
    expect(painted('#ff0000', '', BOX, 0)).toBe('none');
    expect(painted('#ff0000')).toEqual({ fill: '#ff0000' });
    expect(painted('no colour')).toBe('none');
    expect(painted('url(#gone)')).toBe('none');
    expect(painted('url(#gone) #00ff00')).toEqual({ fill: '#00ff00' });
    // What is there and no gradient, such as a pattern, only a picture shows.
    expect(painted('url(#p)', '<pattern id="p"/>')).toBeNull();
    expect(urlOf("url('#a') red")).toEqual({ id: 'a', after: 'red' });
  });
});

// SVG 2, section 14.2: units of the box unless it is said otherwise; a box without width or height has none (from memory).
describe('a gradient', () => {
  test('goes across the box from its left to its right, or as its ends say, in the box’s own shares', () => {
    expect(mapOf('')).toEqual([40, 0, 0, 20, 20, 10]);
    expect(mapOf('x1="0.5"')).toEqual([20, 0, 0, 10, 40, 10]);
    expect(mapOf('x1="50%" x2="100%"')).toEqual([20, 0, 0, 10, 40, 10]);
  });

  test('of a box that is flat either way is none', () => {
    expect(mapOf('', { box: { ...BOX, right: 20 } })).toBe('none');
    expect(mapOf('', { box: { ...BOX, bottom: 10 } })).toBe('none');
    const own = 'gradientUnits="userSpaceOnUse" x1="0" y1="0" x2="10" y2="0"';
    expect(mapOf(own, { box: { ...BOX, bottom: 10 } })).toEqual([10, 0, 0, 10, 0, 0]);
  });

  test('in user space is where it says, if it says so without shares', () => {
    expect(mapOf('gradientUnits="userSpaceOnUse" x1="0%" x2="100%"')).toBeNull();
    expect(mapOf('gradientUnits="userSpaceOnUse" x1="4"')).toBeNull();
    expect(mapOf('gradientUnits="userSpaceOnUse" cx="5" cy="5" r="50%"', { name: 'radialGradient' })).toBeNull();
  });

  test('with one stop is its colour, with none nothing', () => {
    expect(mapOf('', { stops: '' })).toBe('none');
    expect(mapOf('', { stops: '<stop offset="0.3" stop-color="#00ff00"/>' })).toBe('#00ff00');
  });

  test('without length, or without a radius, is the colour of its last stop', () => {
    expect(mapOf('x1="0.5" x2="0.5"')).toBe('#0000ff');
    expect(mapOf('x1="0.5" x2="0.5" y2="1"')).not.toBe('#0000ff');
    expect(mapOf('r="0"', { name: 'radialGradient' })).toBe('#0000ff');
  });

  test('that repeats, or has its focus elsewhere, only a picture shows', () => {
    expect(mapOf('spreadMethod="reflect"')).toBeNull();
    expect(mapOf('spreadMethod="pad"')).not.toBeNull();
    expect(mapOf('cx="0.5" fx="0.2"', { name: 'radialGradient' })).toBeNull();
    expect(mapOf('cx="0.5" fx="0.5"', { name: 'radialGradient' })).not.toBeNull();
  });
});
