import { expect, test } from '@jest/globals';
import { linkedEasing, linkOf, type Easing } from '../../basics/easing';
import { createShelf, type LibraryItem } from '../../library/library';
import { edited, layerOf } from '../../testing/planning';
import { card, key, sceneOf } from '../../testing/scenes';
import { describeFinding, type Finding } from '../finding';
import { checkScene, mendsOf } from '.';

const old: Easing = { type: 'bezier', x1: 0.2, y1: 0, x2: 0.3, y2: 1 };
const renewed: Easing = { type: 'bezier', x1: 0.7, y1: 0, x2: 0.1, y2: 1 };
const link = { id: 'soft', name: 'Soft', revision: 1 };

function shelfWith(revision: number): ReturnType<typeof createShelf> {
  const item = { id: 'soft', kind: 'curve', name: 'Soft', state: 'published', revision, body: { easing: renewed } };
  return createShelf([item as unknown as LibraryItem]);
}

const scene = sceneOf([
  card('a', {
    tracks: {
      rotation: [
        key(4, 0, linkedEasing(old, link)),
        key(8, 9, linkedEasing(old, { ...link, reversed: true })),
        key(12, 4, old),
      ],
    },
  }),
  card('b', { tracks: { opacity: [key(2, 0, linkedEasing(old, link)), key(30, 1)] } }),
]);

test('a curve of the library with a newer revision is told, and taken on all keys that have it, each way round', () => {
  const [found] = checkScene(scene, shelfWith(3)).filter(({ code }) => code === 'curve-waiting') as Extract<
    Finding,
    { code: 'curve-waiting' }
  >[];
  expect(found).toMatchObject({ curve: 'soft', to: 3, keys: 3, layers: ['a', 'b'] });
  expect(describeFinding(found, scene)).toBe(
    'The curve “Soft” has a newer revision: 3. 3 keys still have an older one.',
  );
  const [mend] = mendsOf(found, null, scene, scene, []);
  if (!('edits' in mend)) throw new Error('no edits');
  expect(mend.label).toBe('Take revision 3');
  const next = edited(scene, mend.edits);
  const eases = (layerOf(next, 'a').tracks.rotation ?? []).map(({ ease }) => ease);
  expect(eases[0]).toEqual({ ...renewed, curve: { ...link, revision: 3 } });
  expect(eases[1]).toMatchObject({ x1: 0.9, x2: expect.closeTo(0.3, 12), curve: { reversed: true, revision: 3 } });
  expect(eases[2]).toEqual(old);
  expect(linkOf(layerOf(next, 'b').tracks.opacity?.[0].ease ?? old)?.revision).toBe(3);
  expect(checkScene(next, shelfWith(3)).some(({ code }) => code === 'curve-waiting')).toBe(false);
});

test('nothing is told of a curve that is up to date, or that the library does not have', () => {
  for (const shelf of [shelfWith(1), createShelf([])]) {
    expect(checkScene(scene, shelf).some(({ code }) => code === 'curve-waiting')).toBe(false);
  }
});
