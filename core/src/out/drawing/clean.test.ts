import { describe, expect, test } from '@jest/globals';
import { IDENTITY } from '../../basics/transform';
import { cleanElement, cleanRoot, cleanSheets, hasWords, partAsSvg } from './clean';
import { STANDARD_STYLE } from './style';
import { elementsIn, readXml, type Element } from './xml';

function element(text: string): Element {
  const read = readXml(`<root xmlns:xlink="x" xmlns:a="y">${text}</root>`);
  if (!read.ok) throw new Error(read.message);
  return elementsIn(read.root)[0];
}

const cleaned = (text: string): string => cleanElement(element(text));

describe('an element as text that runs and fetches nothing', () => {
  test.each([
    ['what it says about itself', '<rect width="4" fill="url(#g)"/>', '<rect width="4" fill="url(#g)"></rect>'],
    [
      'what is in it, and words as words',
      '<text>a &lt; b<tspan>"&amp;"</tspan></text>',
      '<text>a &lt; b<tspan>&quot;&amp;&quot;</tspan></text>',
    ],
    ['signs in what it says', `<rect id='a"b&lt;&amp;'/>`, '<rect id="a&quot;b&lt;&amp;"></rect>'],
    ['its style, without imports', '<rect style="@import url(#x); fill:red"/>', '<rect style=" fill:red"></rect>'],
    ['imports where they are no style', '<rect id="@import x;"/>', '<rect id="@import x;"></rect>'],
    ['an own link, by either name', '<use href="#a" xlink:href=" #b"/>', '<use href="#a" xlink:href=" #b"></use>'],
    [
      'a picture that is in the file',
      '<image href="data:image/png;base64,AA"/>',
      '<image href="data:image/png;base64,AA"></image>',
    ],
    ['the language', '<text xml:lang="de"/>', '<text xml:lang="de"></text>'],
  ])('keeps %s', (_, text, wanted) => {
    expect(cleaned(text)).toBe(wanted);
  });

  test.each([
    ['what reacts', '<rect onload="x()" ONCLICK="x()"/>'],
    ['scripts as addresses', '<rect id=" javascript:x()"/>'],
    ['addresses elsewhere', '<rect href="https://elsewhere.invalid" xlink:href="//elsewhere.invalid" src="x"/>'],
    ['drawings in data, which could run', '<rect href="data:image/svg+xml,x"/>'],
    ['pictures from elsewhere', '<rect fill="url(https://elsewhere.invalid)" style="fill:URL( \'a.svg#b\')"/>'],
    ['names of other languages', '<rect a:href="#x" a:b="c"/>'],
  ])('leaves out %s', (_, text) => {
    expect(cleaned(text)).toBe('<rect></rect>');
  });

  test('leaves out elements that are not drawn, wherever they are', () => {
    expect(cleaned('<script>x()</script>')).toBe('');
    expect(cleaned('<g><foreignObject><p/></foreignObject><rect/><feImage/></g>')).toBe('<g><rect></rect></g>');
  });

  test('may be called otherwise', () => {
    expect(cleanElement(element('<symbol id="s"><rect/></symbol>'), 'g')).toBe('<g id="s"><rect></rect></g>');
  });
});

describe('style sheets as text', () => {
  const font = '@font-face{font-family:F;src:url(data:font/woff2;base64,AAAA)}';

  test('fetch nothing; fonts that stand in them stay, but where there are no words', () => {
    const { whole, plain } = cleanSheets([`@import "a.css";${font}`, 'rect{fill:url(b.svg#c);stroke:url(#d)}']);
    expect(whole).toBe(`<style>${font}</style><style>rect{fill:none;stroke:url(#d)}</style>`);
    expect(plain).toBe('<style></style><style>rect{fill:none;stroke:url(#d)}</style>');
    expect(cleaned('<style>rect{fill:url(b)}</style>')).toBe('<style>rect{fill:none}</style>');
  });

  test('are needed with their fonts where words are, however deep', () => {
    expect(hasWords(element('<g><g><text/></g></g>'))).toBe(true);
    expect(hasWords(element('<text/>'))).toBe(true);
    expect(hasWords(element('<g><g><rect/></g></g>'))).toBe(false);
  });
});

describe('a part by itself', () => {
  const file =
    element(`<g><linearGradient id="g" href="#stops"/><linearGradient id="stops"/><clipPath id="k"><use href="#r"/></clipPath>
    <rect id="r"/><mask id="m"/><rect id="part" fill="url(#g)" clip-path="url(#k)"/></g>`);
  const byId = new Map(elementsIn(file).map((one) => [one.attributes['id'], one]));
  const part = byId.get('part') as Element;
  const box = { left: 10, top: 20.5, right: 40, bottom: 50 };
  const shown = { element: part, outer: [2, 0, 0, 2, 1, 0.0000004] as const, around: STANDARD_STYLE };

  test('shows a box of the drawing, with all that it refers to and nothing else', () => {
    const text = partAsSvg(shown, box, { byId, rules: [] }, '<style>s</style>');
    expect(text).toContain('width="30" height="29.5" viewBox="10 20.5 30 29.5"><style>s</style><defs>');
    expect(text).toContain('<g transform="matrix(2 0 0 2 1 0)"><rect id="part"');
    for (const id of ['g', 'stops', 'k', 'r']) expect(text.split(`id="${id}"`)).toHaveLength(2);
    expect(text).not.toContain('id="m"');
  });

  test('has what style sheets refer to, and what it inherits, but not what was its surroundings’ own', () => {
    const rules = [{ declarations: { mask: 'url(#m)', fill: 'red' } }] as never;
    const around = {
      ...STANDARD_STYLE,
      fill: 'red',
      'font-size': '20',
      opacity: '0.5',
      mask: 'url(#m)',
      'stop-color': 'blue',
    };
    const text = partAsSvg({ ...shown, around }, box, { byId, rules }, '');
    expect(text).toContain('<mask id="m">');
    expect(text).toContain('style="fill:red;font-size:20px"');
  });

  test('that is a drawing in the drawing or a symbol becomes a group, and what is in it is not repeated', () => {
    const symbol = element('<symbol id="s"><circle id="c"/><use href="#c"/></symbol>');
    const inside = new Map([['c', elementsIn(symbol)[0]]]);
    const text = partAsSvg({ ...shown, element: symbol, outer: IDENTITY }, box, { byId: inside, rules: [] }, '');
    expect(text).toContain('<defs></defs>');
    expect(text).toContain('<g id="s"><circle id="c"></circle><use href="#c"></use></g>');
    const drawing = partAsSvg({ ...shown, element: element('<svg><rect/></svg>') }, box, { byId, rules: [] }, '');
    expect(drawing).toContain('<g><rect></rect></g>');
  });

  test('a whole drawing has a size in px, and a box where it states none', () => {
    expect(cleanRoot(element('<svg width="3cm" height="2cm" id="d"/>'), 113.4, 75.6)).toMatch(
      /^<svg xmlns="[^"]*" xmlns:xlink="[^"]*" width="113.4" height="75.6" viewBox="0 0 113.4 75.6" id="d"><\/svg>$/,
    );
    expect(cleanRoot(element('<svg viewBox="0 0 9 9"/>'), 18, 18)).toContain(
      'width="18" height="18" viewBox="0 0 9 9">',
    );
  });
});
