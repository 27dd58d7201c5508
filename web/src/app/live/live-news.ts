import { Injectable, type OnDestroy } from '@angular/core';
import type { LibraryNews, SceneNews } from '@wexikine/core';
import { Subject } from 'rxjs';

const CHANNEL = 'wexikine-news';
const LOCK = 'wexikine-news';

/** What is heard: news from the server, or that some may have been missed and all is to be asked for again. */
export type Heard = LibraryNews | SceneNews | { readonly topic: 'missed' };

/**
 * What the server says has changed, in every open window. One window holds the connection for all of them and passes
 * the news on, since a browser allows only a few connections; when it closes, another one takes over.
 */
@Injectable({ providedIn: 'root' })
export class LiveNews implements OnDestroy {
  private readonly subject = new Subject<Heard>();
  readonly news$ = this.subject.asObservable();
  private readonly channel = new BroadcastChannel(CHANNEL);
  private readonly closing = new AbortController();
  private source: EventSource | null = null;

  constructor() {
    this.channel.addEventListener('message', ({ data }: MessageEvent<Heard>) => this.subject.next(data));
    navigator.locks
      .request(LOCK, { signal: this.closing.signal }, () => this.hold())
      .catch((error: unknown) => {
        if (!this.closing.signal.aborted) console.error(error);
      });
  }

  ngOnDestroy(): void {
    this.closing.abort();
    this.source?.close();
    this.channel.close();
  }

  /** Holds the connection for as long as this window is open. */
  private hold(): Promise<void> {
    const source = new EventSource('/api/events');
    this.source = source;
    let isFirst = true;
    source.addEventListener('open', () => {
      if (!isFirst) this.pass({ topic: 'missed' });
      isFirst = false;
    });
    source.addEventListener('message', ({ data }: MessageEvent<string>) =>
      this.pass(JSON.parse(data) as LibraryNews | SceneNews),
    );
    return new Promise((done) => this.closing.signal.addEventListener('abort', () => done()));
  }

  private pass(heard: Heard): void {
    this.channel.postMessage(heard);
    this.subject.next(heard);
  }
}
