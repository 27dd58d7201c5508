import type { HouseItem, HouseValue } from '../library';
import { itemFields } from './builder';

function house(id: string, name: string, note: string, body: HouseValue): HouseItem {
  return { ...itemFields({ id: `house-${id}`, name, note, tags: ['house'] }), kind: 'house', body };
}

/** The house values that a new library begins with. */
export const STARTER_HOUSE: readonly HouseItem[] = [
  house('brisk', 'brisk', 'For small things that should not be waited for.', { type: 'duration', value: '8f' }),
  house('steady', 'steady', 'The usual length of an entrance or an exit.', { type: 'duration', value: '14f' }),
  house('slow', 'slow', 'For large things and quiet moments.', { type: 'duration', value: '24f' }),
  house('breath', 'breath', 'By how much things swell when they draw breath.', { type: 'number', value: 0.08 }),
  house('arrival', 'arrival', 'How things come to rest in this house.', {
    type: 'curve',
    value: { type: 'bezier', x1: 0.16, y1: 0.84, x2: 0.34, y2: 1 },
  }),
  house('lamplight', 'lamplight', 'The warm colour for what shall be seen first.', {
    type: 'colour',
    value: '#f3c98b',
  }),
];
