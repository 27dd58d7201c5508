import { HttpClient } from '@angular/common/http';
import { Injectable, inject } from '@angular/core';
import { fileAddress, fileType, type FontAxis, type KeptFile } from '@wexikine/core';
import { BehaviorSubject, firstValueFrom, map } from 'rxjs';

/** A font that words can be set in besides those of the application. */
export interface OwnFont {
  readonly name: string;
  readonly file: string;
  readonly weights: readonly [number, number];
  /** Axes besides its weight. */
  readonly axes: readonly FontAxis[];
}

/** What a font of one's own is called among others: two of one family differ by their axes. */
export function ownFontLabel({ name, axes }: OwnFont): string {
  return `${name} (${['own', ...axes.map((axis) => axis.name.toLowerCase())].join(', ')})`;
}

/** The files that are kept: pictures and fonts of one's own. */
@Injectable({ providedIn: 'root' })
export class KeptFiles {
  private readonly http = inject(HttpClient);
  private readonly files = new BehaviorSubject<readonly KeptFile[]>([]);

  private readonly known = new BehaviorSubject<ReadonlySet<string> | null>(null);

  readonly files$ = this.files.asObservable();
  readonly fonts$ = this.files$.pipe(
    map((files) =>
      files
        .filter(({ name }) => fileType(name).kind === 'font')
        .map(({ name, title, facts }): OwnFont => ({
          name: facts.family ?? title,
          file: fileAddress(name),
          weights: facts.weights ?? [400, 400],
          axes: facts.axes ?? [],
        })),
    ),
  );

  /** Names of the files that are kept; null as long as that is not known. */
  readonly names$ = this.known.asObservable();

  get fonts(): readonly OwnFont[] {
    let now: readonly OwnFont[] = [];
    this.fonts$.subscribe((fonts) => (now = fonts)).unsubscribe();
    return now;
  }

  /** Asks the server for the list. */
  async load(): Promise<void> {
    const files = await firstValueFrom(this.http.get<KeptFile[]>('/api/files'));
    this.files.next(files);
    this.known.next(new Set(files.map(({ name }) => name)));
  }

  async remove(name: string): Promise<void> {
    await firstValueFrom(this.http.delete(`/api/files/${name}`));
    await this.load();
  }
}
