import type { LibraryNews, SceneNews } from '@wexikine/core';

/** What windows are told of. */
export type News = LibraryNews | SceneNews;

/** Tells every listener what changed, after it was written. */
export interface Hub {
  readonly tell: (news: News) => void;
  /** Listens until the result is called. */
  readonly listen: (hear: (news: News) => void) => () => void;
}

/** Hands news to every window that listens. */
export function createHub(): Hub {
  const listeners = new Set<(news: News) => void>();
  return {
    tell: (news) => {
      for (const hear of listeners) hear(news);
    },
    listen: (hear) => {
      listeners.add(hear);
      return () => void listeners.delete(hear);
    },
  };
}
