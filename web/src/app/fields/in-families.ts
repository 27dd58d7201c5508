import { channelOf, type ChannelFamily, type ChannelId } from '@wexikine/core';

/** Things of one family of channels, such as all of position. */
export interface Family<T> {
  readonly family: ChannelFamily;
  readonly items: readonly T[];
}

/** Things by the families of their channels, each where its first one stands: a list of a hundred is found through by these. */
export function inFamilies<T>(items: readonly T[], channelOfItem: (item: T) => ChannelId): readonly Family<T>[] {
  const families = new Map<ChannelFamily, T[]>();
  for (const item of items) {
    const { family } = channelOf(channelOfItem(item));
    const list = families.get(family);
    if (list) list.push(item);
    else families.set(family, [item]);
  }
  return [...families].map(([family, own]) => ({ family, items: own }));
}
