import { expect, test } from '@jest/globals';
import type { LibraryItem, Reference } from '@wexikine/core';
import { usersByUse, type ItemUser } from './item-users';

const user = (name: string, ...uses: Reference['use'][]): ItemUser => ({
  item: { id: name, name } as LibraryItem,
  uses: uses.map((use) => ({ id: 'fade-in', use, where: use })),
});

const told = (users: readonly ItemUser[]): [string, string[]][] =>
  usersByUse(users).map((group) => [group.title, group.users.map(({ item }) => item.name)]);

test('what is computed with an item uses it; an exit that only goes backwards mirrors it', () => {
  expect(told([user('Fade out', 'matches'), user('Bubbles', 'preset')])).toEqual([
    ['Used by', ['Bubbles']],
    ['Mirrored by', ['Fade out']],
  ]);
  expect(told([user('Both', 'matches', 'easing')])).toEqual([['Used by', ['Both']]]);
  expect(told([])).toEqual([]);
});
