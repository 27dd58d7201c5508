import { ticksFromSeconds } from '../../basics/time';
import type { Layer } from '../layer';
import type { Scene } from '../scene';
import { demoScene, layer, text } from './builder';
import { NIGHT_NAMES, NIGHT_PICTURE, nightPicture } from './night-pictures';

const SPAN = { in: 0, out: ticksFromSeconds(10) };
const WALL = { left: 330, top: 330, step: 460, down: 275, width: 400, height: 225 };

function pictureOf(number: number): Layer {
  const at = {
    x: WALL.left + (number % 3) * WALL.step + WALL.width / 2 - 200,
    y: WALL.top + Math.floor(number / 3) * WALL.down,
    width: WALL.width,
    height: WALL.height,
  };
  return layer(`picture-${number + 1}`, `Picture ${number + 1}: ${NIGHT_NAMES[number]}`, 'picture', at, {
    tags: ['picture'],
    span: SPAN,
    data: { title: NIGHT_NAMES[number], wing: ['north', 'middle', 'south'][Math.floor(number / 3)] },
    look: { border: { colour: '#fdf8ea', side: 'outside' }, shadow: '#000000' },
    rest: { corner: 10, 'border.width': 4, 'shadow.y': 10, 'shadow.blur': 14, 'shadow.opacity': 0.45 },
    source: {
      type: 'picture',
      href: `data:image/svg+xml;base64,${btoa(nightPicture(number))}`,
      width: NIGHT_PICTURE.width,
      height: NIGHT_PICTURE.height,
    },
  });
}

/** Picture wall: nine invented night pictures in three columns, with a title and two captions. */
export function pictureWall(): Scene {
  const frame = { x: 960, y: 540, width: 1_920, height: 1_080 };
  const caption = (id: string, name: string, words: string, y: number): Layer =>
    layer(
      id,
      name,
      'word',
      { x: 1_690, y, width: 280, height: 90 },
      {
        tags: ['caption'],
        span: SPAN,
        look: { fill: '#c9d6ea' },
        source: text(words, { font: 'Spline Sans', weight: 500, size: 30, align: 'left', lineHeight: 1.4 }),
      },
    );
  return demoScene({
    id: 'picture-wall',
    name: 'Picture wall',
    rate: { num: 30, den: 1 },
    length: SPAN.out,
    background: { from: '#0b1230', to: '#26456b', angle: 0 },
    layers: [
      layer(
        'frame-guide',
        'Frame guide',
        'guide',
        { ...frame, width: 1_780, height: 980 },
        { span: SPAN, locked: true },
      ),
      layer(
        'wall-title',
        'Title: Picture wall',
        'word',
        { x: 760, y: 130, width: 1_260, height: 110 },
        {
          tags: ['title'],
          span: SPAN,
          look: { fill: '#f3c98b' },
          source: text('Picture wall', { font: 'Bricolage Grotesque', weight: 700, size: 92, align: 'left' }),
        },
      ),
      ...NIGHT_NAMES.map((_, number) => pictureOf(number)),
      caption('caption-first', 'Caption: first light', 'Nine nights\nover the marsh', 380),
      caption('caption-tide', 'Caption: tide and moon', 'seen from\nthe reed bank', 620),
    ],
  });
}
