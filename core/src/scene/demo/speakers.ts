import { ticksFromSeconds } from '../../basics/time';
import type { Layer } from '../layer';
import type { Scene } from '../scene';
import { demoScene, layer, text } from './builder';

const SPAN = { in: 0, out: ticksFromSeconds(8) };
const SPEAKERS = [
  ['Ida Fenwright', 'Keeper of the long lens'],
  ['Osk Reedham', 'Tide clerk'],
  ['Maro Saltby', 'Counts the meteors'],
  ['Una Heronsgate', 'Radio sky'],
  ['Tolly Brack', 'Lanterns and soup'],
  ['Wenna Dawlish', 'Maps of the dark'],
  ['Ferrin Quill', 'Names the stars'],
  ['Abel Marram', 'Closing bell'],
] as const;
const CAPTION = { width: 760, height: 150, left: 180, top: 250, across: 820, down: 190 };

function caption(number: number, [name, role]: (typeof SPEAKERS)[number]): Layer[] {
  const id = `speaker-${number + 1}`;
  const { width, height, left, top, across, down } = CAPTION;
  const at = {
    x: left + (number % 2) * across + width / 2,
    y: top + Math.floor(number / 2) * down + height / 2,
    width,
    height,
  };
  const words = (part: string, content: string, y: number, size: number, weight: number, fill: string): Layer =>
    layer(
      `${id}-${part}`,
      part,
      'word',
      { x: 40 + (width - 60) / 2, y, width: width - 60, height: size * 1.4 },
      {
        parent: id,
        span: SPAN,
        look: { fill },
        source: text(content, {
          font: part === 'name' ? 'Bricolage Grotesque' : 'Spline Sans',
          weight,
          size,
          align: 'left',
        }),
      },
    );
  return [
    layer(id, name, 'group', at, { tags: ['caption'], span: SPAN, data: { name, role } }),
    layer(
      `${id}-bar`,
      'bar',
      'card',
      { x: 7, y: height / 2, width: 14, height },
      { parent: id, span: SPAN, look: { fill: '#c7761b' } },
    ),
    words('name', name, 52, 58, 700, '#fdf3d7'),
    words('role', role, 112, 32, 400, '#a9bdd8'),
  ];
}

/** Speakers: eight captions of a bar, a name and a role, all invented. A table with those columns makes more of them. */
export function speakers(): Scene {
  return demoScene({
    id: 'speakers',
    name: 'Speakers',
    rate: { num: 25, den: 1 },
    length: SPAN.out,
    background: { from: '#101a33', to: '#20365a', angle: 20 },
    layers: [
      layer(
        'speakers-title',
        'Title: Speakers',
        'word',
        { x: 810, y: 140, width: 1_260, height: 100 },
        {
          tags: ['title'],
          span: SPAN,
          look: { fill: '#f3c98b' },
          source: text('Tonight, in this order', { font: 'Bricolage Grotesque', weight: 700, size: 76, align: 'left' }),
        },
      ),
      ...SPEAKERS.flatMap((speaker, number) => caption(number, speaker)),
    ],
  });
}
