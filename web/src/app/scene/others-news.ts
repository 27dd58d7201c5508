import type { SceneNews } from '@wexikine/core';
import type { Heard } from '../live/live-news';

/** What others did in a scene, kept from when it is heard until it is told; one's own saves come back as news too. */
export class OthersNews {
  private news: readonly SceneNews[] = [];
  /** The version up to which one knows what was done: because one did it, or because it was told. */
  private known = 0;
  private hasMissed = false;

  /** Notes what is of a scene; false for what is of others. */
  hear(news: Heard, scene: string | undefined): boolean {
    if (news.topic === 'missed') this.hasMissed = true;
    else if (news.topic === 'scene' && news.id === scene) this.news = [...this.news, news];
    else return false;
    return true;
  }

  /** True where the server may have more than a version. */
  isAheadOf(version: number): boolean {
    return this.hasMissed || this.news.some((entry) => entry.version > version);
  }

  /** Nothing is to be told up to a version: one has opened or saved it. */
  know(version: number): void {
    this.known = version;
  }

  /** The server was asked: nothing is missed any more. */
  caughtUp(): void {
    this.hasMissed = false;
  }

  /** What is to be told of all up to a version that stands here; null for nothing. Each is told once. */
  tell(version: number): string | null {
    const untold = this.news.filter((entry) => entry.version > this.known && entry.version <= version);
    this.known = Math.max(this.known, version);
    this.news = this.news.filter((entry) => entry.version > this.known);
    return untold.length === 0 ? null : untold.map(({ by, what }) => `${by}: ${what}`).join('; ');
  }
}
