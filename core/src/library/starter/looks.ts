import type { KeptLook, LookItem, Palette, PaletteItem } from '../library';
import { itemFields } from './builder';

function look(id: string, name: string, note: string, body: KeptLook): LookItem {
  return { ...itemFields({ id: `look-${id}`, name, note, tags: ['look'] }), kind: 'look', body };
}

function palette(id: string, name: string, note: string, body: Palette): PaletteItem {
  return { ...itemFields({ id: `palette-${id}`, name, note, tags: ['colours'] }), kind: 'palette', body };
}

/** Looks that a new library begins with. */
export const STARTER_LOOKS: readonly LookItem[] = [
  look('print', 'Print', 'A white edge and a soft shadow, as a photograph that lies on a table.', {
    parts: ['border', 'shadow'],
    look: { border: { colour: '#fdf8ea', side: 'outside' }, shadow: '#000000' },
    rest: { 'border.width': 10, 'shadow.y': 10, 'shadow.blur': 14, 'shadow.opacity': 0.4 },
  }),
  look('lifted', 'Lifted', 'Two shadows, a near and a far one: it floats above the ground.', {
    parts: ['shadow'],
    look: { shadow: '#000000', shadows: [{ colour: '#00000040', x: 0, y: 28, blur: 30 }] },
    rest: { 'shadow.y': 4, 'shadow.blur': 4, 'shadow.opacity': 0.35 },
  }),
  look(
    'raised',
    'Raised',
    'As high above the ground as you say: the higher, the further, softer and fainter its shadow falls.',
    {
      parts: ['shadow'],
      look: { shadow: '#000000' },
      rest: { 'shadow.x': 0, 'shadow.y': 12, 'shadow.blur': 16, 'shadow.opacity': 0.5 },
      parameters: [
        {
          name: 'height',
          label: 'Height',
          kind: 'length',
          default: '12px',
          min: '0px',
          from: '0px',
          to: '80px',
          step: '1px',
          note: 'above the ground',
        },
        { name: 'tone', label: 'Shade', kind: 'colour', default: '#000000', note: 'the colour of its shadow' },
      ],
      formulas: [
        { channel: 'shadow.y', text: '@height' },
        { channel: 'shadow.blur', text: '@height × 1.3' },
        { channel: 'shadow.opacity', text: 'clamp(55% − @height ÷ 250px, 20%, 60%)' },
      ],
      colours: { shadow: 'tone' },
    },
  ),
  look('lamp', 'Lamp', 'A warm glow around it.', {
    parts: ['glow'],
    look: { glow: '#ffe2a0' },
    rest: { 'glow.size': 22, 'glow.opacity': 0.9 },
  }),
  look('pressed', 'Pressed in', 'A shadow that falls inwards, as if cut into the ground.', {
    parts: ['inner', 'shadow'],
    look: { inner: '#000000' },
    rest: { 'inner.y': 6, 'inner.blur': 10, 'inner.opacity': 0.6 },
  }),
  look('line', 'Fine line', 'A thin line on its edge, from light to shade.', {
    parts: ['border'],
    look: { border: { colour: '#fdf8ea', to: '#8b8676', angle: 0, side: 'inside' } },
    rest: { 'border.width': 2 },
  }),
  look('old-print', 'Old print', 'Under a warm tint, a little brighter and softer in contrast.', {
    parts: ['tint', 'colours'],
    look: { tint: '#c7761b' },
    rest: { 'tint.amount': 0.45, 'colour.brightness': 1.06, 'colour.contrast': 0.86 },
  }),
];

/** Palettes that a new library begins with. */
export const STARTER_PALETTES: readonly PaletteItem[] = [
  palette('night', 'Night over the marsh', 'Ink, pine and lamplight, with ramps from dark to light.', {
    colours: [
      { name: 'ink', colour: '#0f1a2b' },
      { name: 'dusk', colour: '#2f4669' },
      { name: 'pine', colour: '#1e6f5c' },
      { name: 'reed', colour: '#8fb8a0' },
      { name: 'lamp', colour: '#f3c98b' },
      { name: 'paper', colour: '#fdf8ea' },
    ],
    ramps: [
      { name: 'ink to paper', through: ['ink', 'paper'], steps: 7 },
      { name: 'pine to lamp', through: ['pine', 'reed', 'lamp'], steps: 7 },
    ],
  }),
  palette('ember', 'Ember', 'From coal over rust to the flame.', {
    colours: [
      { name: 'coal', colour: '#2b1a16' },
      { name: 'rust', colour: '#9a3b1c' },
      { name: 'ember', colour: '#e0702a' },
      { name: 'flame', colour: '#f7c65c' },
    ],
    ramps: [{ name: 'fire', through: ['coal', 'ember', 'flame'], steps: 9 }],
  }),
  palette(
    'apart',
    'Told apart',
    'Six colours that differ in lightness as well, so that they are told apart in any eye.',
    {
      colours: [
        { name: 'navy', colour: '#172b4d' },
        { name: 'plum', colour: '#7b2d5b' },
        { name: 'blue', colour: '#2f7fc1' },
        { name: 'orange', colour: '#e58a2b' },
        { name: 'mint', colour: '#8fd6b4' },
        { name: 'straw', colour: '#f6e9a8' },
      ],
    },
  ),
];
