import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { layerCount, readDrawing, wholeAt, type DrawingLevel, type OutlineText } from '.';
import { movedOutline } from './faces';
import { layerSchema, type Layer } from '../../scene/layer';
import { sceneSchema } from '../../scene/scene';
import { compileScene, createFrame, matrixAt, sampleFrame } from '../../scene/sample';
import { transformPoint } from '../../basics/transform';
import { drawingOf, layersOf, svg } from '../../testing/drawings';
import { sceneOf } from '../../testing/scenes';

/** Where the corners of a layer's box are in the scene. */
function corners(layers: readonly Layer[], name: string): number[] {
  const scene = sceneOf(layers);
  const compiled = compileScene(scene);
  const frame = createFrame(compiled);
  sampleFrame(compiled, 0, frame);
  const index = layers.findIndex((layer) => layer.name === name);
  const matrix = matrixAt(frame, index);
  const [w, h] = [layers[index].rest['size.x'] ?? 0, layers[index].rest['size.y'] ?? 0];
  const [one, two] = [transformPoint(matrix, { x: 0, y: 0 }), transformPoint(matrix, { x: w, y: h })];
  return [one.x, one.y, two.x, two.y].map((value) => Math.round(value * 100) / 100);
}

describe('parts of a drawing', () => {
  test('groups, labels and shapes become named layers that stand where they were drawn', () => {
    const layers = layersOf(
      svg(`<g id="Board_x20_one" transform="translate(20 10)"><rect id="a" width="40" height="20" fill="red"/>
        <circle id="b" cx="100" cy="30" r="10" fill="#00f" opacity="0.5"/></g>
        <path id="c" d="M150 50 q10 -20 20 0 t20 0" fill="none" stroke="teal" stroke-width="3"/>`),
    );
    expect(layers.map(({ name, kind }) => [name, kind])).toEqual([
      ['Drawing', 'group'],
      ['Board one', 'group'],
      ['a', 'card'],
      ['b', 'card'],
      ['c', 'card'],
    ]);
    expect(corners(layers, 'Drawing')).toEqual([0, 0, 200, 100]);
    expect(corners(layers, 'a')).toEqual([20, 10, 60, 30]);
    expect(corners(layers, 'b')).toEqual([110, 30, 130, 50]);
    // The curve of q and t reaches half of its handles: from 40 to 60.
    expect(corners(layers, 'c')).toEqual([150, 40, 190, 60]);
    expect(layers[2].look).toEqual({ fill: '#ff0000' });
    expect(layers[3].rest.opacity).toBe(0.5);
    expect(layers[4].look).toEqual({ stroke: '#008080', cap: 'butt', join: 'miter' });
    expect(layers[4].rest['stroke.width']).toBe(3);
  });

  test('a turned group is flattened, an uneven one with a stroke keeps its transform; sizes follow the scale', () => {
    const layers = layersOf(
      svg(`<g transform="rotate(90 100 50)"><rect id="turned" x="90" y="45" width="20" height="10"/></g>
        <g transform="scale(2 1)"><rect id="wide" x="5" y="5" width="20" height="10" fill="none" stroke="red" stroke-width="4"/></g>`),
      'all',
      2,
    );
    expect(corners(layers, 'turned')).toEqual([90, 30, 110, 70]);
    const wide = layers.find(({ name }) => name === 'wide');
    expect(wide?.rest).toMatchObject({ 'scale.x': 4, 'scale.y': 2, 'size.x': 20, 'size.y': 10, 'stroke.width': 4 });
    expect(corners(layers, 'wide')).toEqual([-80, -40, 0, -20]);
  });

  test('styles come from attributes, sheets and style attributes, in this order, and are inherited', () => {
    const layers = layersOf(
      svg(`<style>.st0{fill:#112233} rect.st0{fill:#445566} #x{stroke:#010203;stroke-width:2px} @media print{rect{fill:red}} .st0 > g{fill:red}</style>
        <g class="st0" fill="green" stroke-linejoin="round"><path id="p" d="M0 0h9v9z"/><rect id="x" class="st0" width="9" height="9"/>
        <rect id="y" width="9" height="9" class="st0" style="fill: currentColor; color: rgb(7 8 9)"/></g>`),
    );
    const look = (name: string) => layers.find((layer) => layer.name === name)?.look;
    expect(look('p')).toEqual({ fill: '#112233' });
    expect(look('x')).toEqual({ fill: '#445566', stroke: '#010203', cap: 'butt', join: 'round' });
    expect(look('y')).toEqual({ fill: '#070809' });
  });

  test('shapes without an outline that can be read are left out, and what stands beside them comes', () => {
    const bad = ['d=""', 'd="nonsense"', ''].map((d) => `<path ${d} stroke="red"/>`).join('');
    const layers = layersOf(svg(`${bad}<polygon points=""/><rect id="x" width="9" height="9"/>`));
    expect(layers.filter(({ source }) => source.type !== 'none').map(({ name }) => name)).toEqual(['x']);
  });

  test('gradients in the box and in user space lie where the file has them, through references and transforms', () => {
    const layers = layersOf(
      svg(`<defs><linearGradient id="base"><stop offset="0" stop-color="red"/><stop offset="50%" stop-color="lime" stop-opacity=".5"/><stop offset="1" style="stop-color:blue"/></linearGradient>
        <linearGradient id="user" href="#base" gradientUnits="userSpaceOnUse" x1="10" y1="0" x2="30" y2="0"/>
        <radialGradient id="round" xlink:href="#base" xmlns:xlink="http://www.w3.org/1999/xlink" gradientTransform="translate(.25 0)"/></defs>
        <rect id="one" x="10" width="40" height="20" fill="url(#user)"/><rect id="two" width="40" height="20" fill="url(#round)"/>
        <rect id="three" width="40" height="20" fill="url(#missing) #123456"/>`),
    );
    const fill = (name: string) => layers.find((layer) => layer.name === name)?.look.fill;
    expect(fill('one')).toMatchObject({
      kind: 'linear',
      stops: [
        { at: 0, colour: '#ff0000' },
        { at: 0.5, colour: '#00ff0080' },
        { at: 1, colour: '#0000ff' },
      ],
      map: [0.5, 0, 0, 1, 0, 0],
    });
    expect(fill('two')).toMatchObject({ kind: 'radial', map: [0.5, 0, 0, 0.5, 0.75, 0.5] });
    expect(fill('three')).toBe('#123456');
  });

  test('what layers cannot show is a picture of itself: clips by words, filters, patterns, marks, odd strokes', () => {
    const layers = layersOf(
      svg(`<clipPath id="k"><text>Hi</text></clipPath><pattern id="q" width="2" height="2"><path d="M0 0h1v1z"/></pattern>
        <filter id="f"><feGaussianBlur stdDeviation="2"/></filter><g id="clipped" clip-path="url(#k)"><rect width="9" height="9"/><rect width="3" height="3"/></g>
        <rect id="tiled" width="9" height="9" fill="url(#q)"/><rect id="soft" width="9" height="9" filter="url(#f)"/>
        <rect id="shifted" width="9" height="9" stroke="red" stroke-dashoffset="3" stroke-dasharray="1"/><rect id="dashed" width="9" height="9" stroke="red" stroke-dasharray="4 2"/>
        <rect id="share" width="9" height="9" stroke="red" stroke-width="5%"/><rect id="alike" width="9" height="9" stroke="red" vector-effect="non-scaling-stroke"/>`),
    );
    expect(layers.slice(1).map(({ name, kind }) => `${name} ${kind}`)).toEqual([
      'clipped picture',
      'tiled picture',
      'soft picture',
      'shifted picture',
      'dashed card',
      'share picture',
      'alike picture',
    ]);
    const { source } = layers[1];
    const text = source.type === 'picture' ? decodeURIComponent(source.href) : '';
    expect(text).toContain('<defs><clipPath id="k"><text>Hi</text></clipPath></defs>');
    expect(layers[5].look.dash).toEqual([4, 2]);
  });

  test('a stroke without any width is none', () => {
    const [, none, line] = layersOf(
      svg(
        `<rect id="none" width="9" height="9" stroke="red" stroke-width="0"/><rect id="line" width="9" height="9" stroke="red"/>`,
      ),
    );
    expect(none.look).toEqual({ fill: '#000000' });
    expect(line.look).toMatchObject({ fill: '#000000', stroke: '#ff0000' });
  });

  test('use and symbols are drawn where they are used, and never in themselves', () => {
    const layers = layersOf(
      svg(`<symbol id="s" viewBox="0 0 10 10"><rect id="inner" width="10" height="10"/></symbol><use id="first" href="#s" x="20" y="10" width="40" height="40"/>
        <defs><path id="tri" d="M0 0h10v10z"/></defs><use id="second" href="#tri" x="100" fill="red"/>
        <g id="loop"><rect width="5" height="5"/><use href="#loop"/></g>`),
    );
    expect(corners(layers, 'first')).toEqual([20, 10, 60, 50]);
    expect(corners(layers, 'second')).toEqual([100, 0, 110, 10]);
    expect(layers.find(({ name }) => name === 'second')?.look.fill).toBe('#ff0000');
  });

  test.each([
    ['follows a path', '<text id="t" y="20" font-family="Spline Sans"><textPath href="#p">Round</textPath></text>'],
    ['has letters that are turned', '<text id="t" y="20" font-family="Spline Sans" rotate="9">Round</text>'],
    [
      'has letters placed one by one',
      '<text id="t" y="20" font-family="Spline Sans"><tspan x="1 9 20">Ron</tspan></text>',
    ],
  ])('text that %s is shown by a picture', (_, text) => {
    const layers = layersOf(svg(`<path id="p" d="M0 50Q50 0 100 50" fill="none"/>${text}`));
    expect(layers.find(({ name }) => name === 't')?.kind).toBe('picture');
  });

  test('text becomes words in a font that is at hand, line by line, and a picture in another', () => {
    const layers = layersOf(
      svg(`<text id="title" x="100" y="40" font-family="Spline Sans, serif" font-size="20" font-weight="bold" text-anchor="middle">Two  nights</text>
        <text id="lines" font-family="'spline sans'" font-size="10"><tspan x="5" y="20">One</tspan><tspan x="5" dy="1.2em">Two</tspan></text>
        <text id="other" y="50" font-family="Nowhere Serif">Three</text>`),
    );
    expect(layers.slice(1).map(({ name, kind }) => `${name} ${kind}`)).toEqual([
      'Two nights word',
      'lines group',
      'One word',
      'Two word',
      'other picture',
    ]);
    const [, title] = layers;
    expect(title.source).toEqual({
      type: 'text',
      text: 'Two nights',
      font: 'Spline Sans',
      weight: 700,
      size: 20,
      align: 'middle',
    });
    // 24 px high with 22 of letters: the baseline lies 1 + 18 px down, and the box is 100 px wide about x = 100.
    expect(corners(layers, 'Two nights')).toEqual([50, 21, 150, 45]);
    expect(corners(layers, 'Two')[1] - corners(layers, 'One')[1]).toBeCloseTo(12, 6);
  });

  // Known answer: the middle of the words lies 7 px above the point that they are set on, and about which they turn.
  test.each([
    [90, 107, 40],
    [-30, 96.5, 40 - 7 * Math.cos(Math.PI / 6)],
    [180, 100, 47],
  ])('words that are turned by %d° lie where they are drawn', (degrees, x, y) => {
    const [, words] = layersOf(
      svg(
        `<text x="100" y="40" font-family="Spline Sans" font-size="20" text-anchor="middle" transform="rotate(${degrees} 100 40)">Two nights</text>`,
      ),
    );
    expect(words.rest.rotation).toBeCloseTo(degrees, 6);
    expect(words.rest['position.x']).toBeCloseTo(x, 3);
    expect(words.rest['position.y']).toBeCloseTo(y, 3);
  });

  describe('text in a font that the drawing carries', () => {
    const sheet = (more: string): string =>
      `<style>@font-face { font-family: "Marsh"; font-weight: 300 500; src: url(data:font/woff2;base64,AAAA) } ${more}</style>`;
    /** Letters as squares that are as wide as their size. */
    const squares: OutlineText = (_face, { text, size }) => ({
      d: [...text]
        .map((_, i) => `M${i * size} 0L${(i + 1) * size} 0L${(i + 1) * size} ${-size}L${i * size} ${-size}Z`)
        .join(''),
      width: text.length * size,
    });

    test('is shapes, one for each line, set from where the line is set', () => {
      const text = svg(
        `${sheet('')}<text id="a" x="100" y="40" font-family="Marsh, serif" font-size="10" text-anchor="middle" fill="#123456" opacity=".5">Tide</text>
        <text id="b" font-family="marsh" font-size="5"><tspan x="5" y="60">One</tspan><tspan x="5" y="70">Two</tspan></text>`,
      );
      const layers = layersOf(text, 'all', 1, { outline: squares });
      expect(layers.slice(1).map(({ name, source }) => `${name} ${source.type}`)).toEqual([
        'Tide path',
        'b none',
        'One path',
        'Two path',
      ]);
      expect(corners(layers, 'Tide')).toEqual([80, 30, 120, 40]);
      expect(corners(layers, 'Two')).toEqual([5, 65, 20, 70]);
      expect([layers[1].look.fill, layers[1].rest.opacity]).toEqual(['#123456', 0.5]);
    });

    test('is asked for in the face that is nearest, and is a picture where that cannot be read', () => {
      const more = `@font-face{font-family:Marsh;font-weight:bold;font-style:italic;src:url("data:application/font-woff;charset=utf-8;base64,BBBB") format("woff")}`;
      const asked: string[] = [];
      const text = (style: string): string => svg(`${sheet(more)}<text y="9" font-family="Marsh" ${style}>Tide</text>`);
      for (const style of ['font-weight="400"', 'font-weight="900"', 'font-weight="900" font-style="italic"']) {
        const layers = layersOf(text(style), 'all', 1, { outline: ({ data }) => (asked.push(data), null) });
        expect(layers[1].kind).toBe('picture');
      }
      expect(asked).toEqual(['AAAA', 'AAAA', 'BBBB']);
    });

    test('what is not carried is no font: addresses elsewhere, and what is no font by its type', () => {
      const faces = (src: string) =>
        drawingOf(svg(`<style>@font-face{font-family:M;src:${src}}</style><rect width="9" height="9"/>`)).faces;
      expect(faces('url(https://example.org/a.woff2)')).toEqual([]);
      expect(faces('url("data:text/html;base64,AAAA")')).toEqual([]);
      expect(faces('local("Reed")')).toEqual([]);
      expect(faces("url('data:font/ttf;base64,AAAA')")).toEqual([
        { family: 'M', weights: [400, 400], isSlanted: false, data: 'AAAA' },
      ]);
    });

    test('goes along in pictures of words, and in no others', () => {
      const inPicture = (inside: string): string => {
        const layers = layersOf(svg(`${sheet('')}<g id="g" filter="url(#f)">${inside}</g><circle r="4"/>`));
        const { source } = layers.find(({ kind }) => kind === 'picture') as Layer;
        return source.type === 'picture' ? decodeURIComponent(source.href) : '';
      };
      expect(inPicture('<text y="9" font-family="Marsh">Tide</text>')).toContain('data:font/woff2;base64,AAAA');
      expect(inPicture('<rect width="9" height="9"/>')).not.toContain('font-face');
    });

    test('goes along in so many pictures as are bounded together', () => {
      const font = 'A'.repeat(2_000_000);
      const words = Array.from({ length: 40 }, (_, i) => `<text y="${i}" rotate="5" font-family="Marsh">t</text>`);
      const layers = layersOf(svg(`${sheet('').replace('AAAA', font)}${words.join('')}`));
      const letters = layers.reduce((sum, { source }) => sum + (source.type === 'picture' ? source.href.length : 0), 0);
      expect(layers.filter(({ kind }) => kind === 'picture')).toHaveLength(40);
      expect(letters).toBeLessThan(35_000_000);
    });

    test('an outline moves as a whole', () => {
      expect(movedOutline('M1 2L-3 4.5Q1e1,-2 .5 6Z', { x: 10, y: -1 })).toBe('M 11  1L 7  3.5Q 20, -3  10.5  5Z');
    });
  });

  test('a picture of words is no wider than they can be, on the side to which they are set, and within the drawing', () => {
    const text = (more: string, said = 'Tide'): number[] => {
      const layers = layersOf(svg(`<text y="50" font-family="Nowhere Serif" font-size="10" ${more}>${said}</text>`));
      const [left, , right] = corners(layers, layers[1].name);
      return [left, right];
    };
    // Four letters of at most 11 px, and a size of the font as room on either side.
    expect(text('x="60"')).toEqual([50, 114]);
    expect(text('x="60" text-anchor="middle"')).toEqual([28, 92]);
    expect(text('x="60" text-anchor="end"')).toEqual([6, 70]);
    // Set from right to left, or moved, it may lie on either side.
    expect(text('x="60"', 'سماء')).toEqual([6, 114]);
    expect(text('x="60" rotate="20"')).toEqual([6, 114]);
    expect(text('x="180"')).toEqual([170, 200]);
  });

  test('the level says what is one layer: all, each group on top, or every part', () => {
    const text = svg(
      '<g id="g"><rect width="9" height="9"/><g id="h"><rect width="4" height="4"/><rect width="5" height="5"/></g></g><circle r="4"/>',
    );
    const drawing = drawingOf(text);
    const count = (level: DrawingLevel): number => layersOf(text, level).length;
    expect([count('one'), count('top'), count('all')]).toEqual([1, 3, 7]);
    expect((['one', 'top', 'all'] as const).map((level) => layerCount(drawing.root, wholeAt(drawing, level)))).toEqual([
      1, 3, 7,
    ]);
  });
});

describe('hostile and broken files', () => {
  test('nothing that runs or is fetched goes on, in the whole and in parts', () => {
    const text =
      svg(`<script>alert(1)</script><style>@import url(http://elsewhere.invalid/a.css); rect{fill:url(http://elsewhere.invalid/b)} </style>
      <g id="g" onclick="alert(2)" filter="url(#f)"><rect width="9" height="9" style="fill:url('http://elsewhere.invalid/c')"/><image href="http://elsewhere.invalid/d.png" width="9" height="9"/>
      <a href="javascript:alert(3)"><rect width="5" height="5"/></a><foreignObject><iframe src="http://elsewhere.invalid"/></foreignObject><animate attributeName="x"/></g>
      <filter id="f"><feImage href="http://elsewhere.invalid/e.png"/></filter>`);
    const all = `${drawingOf(text).clean} ${JSON.stringify(layersOf(text)).replace(/%3A/g, ':')}`;
    for (const word of ['elsewhere', 'alert', 'onclick', 'script', 'foreignObject', 'iframe', 'animate', 'feImage'])
      expect(all).not.toContain(word);
  });

  test('plain names for text are read as what they stand for', () => {
    const declared = `<!DOCTYPE svg [<!ENTITY who "the heron"><!ENTITY where 'at dusk'>]>`;
    const read = readDrawing(`${declared}${svg('<text>&who; &where;</text>')}`);
    expect(read.ok ? read.drawing.clean : read.message).toContain('the heron at dusk');
  });

  test('bombs, endless nesting, other files and cut ones get a reason', () => {
    const bomb = `<!DOCTYPE svg [<!ENTITY a "ha"><!ENTITY b "&a;&a;&a;">]>${svg('<text>&b;</text>')}`;
    const reasons = [
      bomb,
      svg('<g>'.repeat(300) + '</g>'.repeat(300)),
      '<html/>',
      svg('<rect'),
      '',
      svg('<defs/>'),
    ].map((text) => {
      const read = readDrawing(text);
      return read.ok ? 'read' : read.message;
    });
    expect(reasons[0]).toMatch(/not a whole SVG/);
    expect(reasons[1]).toMatch(/deep in each other/);
    expect(reasons[2]).toMatch(/begins with “html”/);
    expect(reasons.slice(3, 5).every((reason) => reason.startsWith('it is not a whole SVG'))).toBe(true);
    expect(reasons[5]).toMatch(/nothing is drawn/);
    const uses = Array.from(
      { length: 20 },
      (_, i) => `<g id="u${i}"><use href="#u${i + 1}"/><use href="#u${i + 1}"/></g>`,
    ).join('');
    expect(layersOf(svg(`${uses}<g id="u20"><rect width="1" height="1"/></g>`)).length).toBeLessThanOrEqual(20_001);
  });

  test('clips in clips and masks of masks end soon, however often they are met', () => {
    const far = '<clipPath id="far"><rect x="90000" width="1" height="1"/></clipPath>';
    const deep = `${far}${'<g clip-path="url(#far)">'.repeat(50)}<rect width="9" height="9"/><rect width="5" height="9"/>${'</g>'.repeat(50)}`;
    const doubled = Array.from(
      { length: 24 },
      (_, i) =>
        `<mask id="m${i}">${`<rect width="9" height="9" fill="#fff" mask="url(#m${i + 1})"/>`.repeat(2)}</mask>`,
    );
    const masked = `${doubled.join('')}<mask id="m24"><rect width="9" height="9"/></mask><rect width="9" height="9" mask="url(#m0)"/>`;
    // Without a bound there would be 2 to the power of 50, or of 24, of them to try.
    for (const text of [deep, masked]) expect(layersOf(svg(text)).length).toBeLessThan(20_000);
  }, 30_000);

  test('any damage to a file ends in layers that a scene can hold, or in a reason', () => {
    const flags = join(dirname(require.resolve('flag-icons/package.json')), 'flags/4x3');
    const files = readdirSync(flags).filter((_, i) => i % 30 === 0);
    const texts = files.map((file) => readFileSync(join(flags, file), 'utf8').slice(0, 6_000));
    const damage = fc.array(
      fc.tuple(
        fc.double({ min: 0, max: 1, noNaN: true }),
        fc.nat(40),
        fc.constantFrom('', '"', '<g>', '-1e9', 'url(#a)', '0', '&', 'NaN', '</svg>'),
      ),
      { maxLength: 4 },
    );
    fc.assert(
      fc.property(fc.constantFrom(...texts), damage, (text, cuts) => {
        const broken = cuts.reduce((all, [share, length, word]) => {
          const at = Math.floor(share * all.length);
          return all.slice(0, at) + word + all.slice(at + length);
        }, text);
        const read = readDrawing(broken);
        if (!read.ok) return expect(read.message.length).toBeGreaterThan(5);
        for (const layer of layersOf(broken)) expect(layerSchema.safeParse(layer).error?.issues ?? []).toEqual([]);
      }),
      { numRuns: 200 },
    );
  });

  test('drawings of packages become scenes that hold together', () => {
    const flags = join(dirname(require.resolve('flag-icons/package.json')), 'flags/4x3');
    for (const file of readdirSync(flags).filter((_, i) => i % 9 === 0)) {
      const layers = layersOf(readFileSync(join(flags, file), 'utf8'));
      const scene = sceneOf(layers);
      expect([file, sceneSchema.safeParse(scene).error?.issues ?? []]).toEqual([file, []]);
    }
  });
});
