import { LINEAR } from '../basics/easing';
import type { MovementOf } from '../formulas/preset';

/** A bounce from 200 px that neither travels nor squashes, from the moment `start`. */
export const BOUNCE = {
  id: 'drop',
  type: 'bounce',
  channel: 'position.y',
  from: 'start',
  by: 'height',
  numbers: {
    height: '200px',
    speed: '0',
    gravity: '0',
    restitution: '0.5',
    travel: '0px',
    squash: '0%',
    contact: '0f',
  },
} satisfies MovementOf<'bounce'>;

/** A straight way from the moment `start` to `end`, at an even speed. */
export const ALONG = {
  id: 'p',
  type: 'path',
  from: 'start',
  to: 'end',
  d: 'M0 0L10 10',
  fit: 'round',
  turns: false,
  ease: LINEAR,
  numbers: { size: '100%', begin: '0%', end: '100%' },
} satisfies MovementOf<'path'>;
