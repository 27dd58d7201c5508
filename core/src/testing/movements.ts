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
