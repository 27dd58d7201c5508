import type { LibraryItem, Reference } from '@wexikine/core';

/** An item that takes something from another one, and where. */
export interface ItemUser {
  readonly item: LibraryItem;
  readonly uses: readonly Reference[];
}

/** Those that are computed with an item, and apart from them exits that only mirror it. */
export function usersByUse(
  users: readonly ItemUser[],
): { readonly title: string; readonly users: readonly ItemUser[] }[] {
  const isMirror = ({ uses }: ItemUser): boolean => uses.every(({ use }) => use === 'matches');
  return [
    { title: 'Used by', users: users.filter((user) => !isMirror(user)) },
    { title: 'Mirrored by', users: users.filter(isMirror) },
  ].filter((group) => group.users.length > 0);
}
