import { HOLD, springPoints, type CurveLink, type Easing } from './easing';
import { linkOf, unlinked } from './link';

const MIRRORED_JUMP = { start: 'end', end: 'start', none: 'none', both: 'both' } as const;

function reversedShape(easing: Easing): Easing {
  switch (easing.type) {
    case 'linear':
      return easing;
    case 'hold':
      return { type: 'steps', count: 1, jump: 'start' };
    case 'steps':
      return easing.count === 1 && easing.jump === 'start' ? HOLD : { ...easing, jump: MIRRORED_JUMP[easing.jump] };
    case 'bezier':
      return { type: 'bezier', x1: 1 - easing.x2, y1: 1 - easing.y2, x2: 1 - easing.x1, y2: 1 - easing.y1 };
    case 'handles':
      return { type: 'handles', leave: easing.arrive, arrive: easing.leave };
    case 'points': {
      const points = easing.points.map(({ input, output }) => ({ input: 1 - input, output: 1 - output }));
      return { type: 'points', points: points.reverse() };
    }
    case 'spring':
      return reversedShape(springPoints(easing));
  }
}

/**
 * The easing played backwards: progress 1 − p(1 − u). A spring becomes points; a curve of the library stays linked, and
 * says that it is backwards.
 */
export function reverseEasing(easing: Easing): Easing {
  const link = linkOf(easing);
  const reversed = reversedShape(unlinked(easing));
  if (!link || reversed.type === 'handles') return reversed;
  const { reversed: isBackwards, ...rest } = link;
  return { ...reversed, curve: isBackwards === true ? rest : { ...rest, reversed: true } };
}

/** A library curve's easing as it stands on a key: with the link to it, played backwards where the link says so. */
export function linkedEasing(easing: Easing, link: CurveLink): Easing {
  const own = unlinked(easing);
  const played = link.reversed === true ? reversedShape(own) : own;
  // Free handles are in the unit of one channel: they cannot be a library's.
  return played.type === 'handles' ? played : { ...played, curve: link };
}
