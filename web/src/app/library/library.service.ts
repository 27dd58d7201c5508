import { Injectable, inject } from '@angular/core';
import {
  createShelf,
  isPreset,
  type LibraryEntry,
  type LibraryItem,
  type PresetItem,
  type Shelf,
} from '@wexikine/core';
import { BehaviorSubject, bufferTime, combineLatest, filter, map, shareReplay, type Observable } from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { KnownColours } from '../fields/known-colours';
import { LiveNews, type Heard } from '../live/live-news';

/** How reading the library stands. */
export interface LibraryState {
  readonly entries: readonly LibraryEntry[];
  readonly isLoading: boolean;
  readonly problem: string | null;
}

/** More changed items than this are asked for as a whole library. */
const FEW = 40;
/** News that come together are asked for together, milliseconds. */
const GATHER_MS = 60;

/** The published item of an entry, or the draft where that is being tried. */
function shownOf({ item, draft }: LibraryEntry, tried: string | null): LibraryItem[] {
  if (tried === item.id && draft) return [draft];
  return item.state === 'published' || item.state === 'retired' ? [item] : [];
}

/** The library, loaded once, shared by every screen, and kept as it stands on the server. */
@Injectable({ providedIn: 'root' })
export class LibraryService {
  private readonly api = inject(ApiService);
  private readonly subject = new BehaviorSubject<LibraryState>({ entries: [], isLoading: true, problem: null });
  private readonly tried = new BehaviorSubject<string | null>(null);
  readonly state$ = this.subject.asObservable();
  /** What runs and presets may use: the published of each item, retired ones too. */
  readonly items$: Observable<readonly LibraryItem[]> = combineLatest([this.state$, this.tried]).pipe(
    map(([{ entries }, tried]) => entries.flatMap((entry) => shownOf(entry, tried))),
    shareReplay(1),
  );
  readonly shelf$: Observable<Shelf> = this.items$.pipe(map(createShelf), shareReplay(1));
  /** Presets that may be offered for new runs. */
  readonly offered$: Observable<readonly PresetItem[]> = this.items$.pipe(
    map((items) => items.filter(isPreset).filter(({ state }) => state !== 'retired')),
    shareReplay(1),
  );

  constructor() {
    const known = inject(KnownColours);
    this.items$.subscribe((items) => known.know(items));
    this.load();
    inject(LiveNews)
      .news$.pipe(
        bufferTime(GATHER_MS),
        map((heard) => heard.filter(({ topic }) => topic !== 'scene')),
        filter((heard) => heard.length > 0),
      )
      .subscribe((heard) => this.follow(heard));
  }

  get state(): LibraryState {
    return this.subject.value;
  }

  load(): void {
    this.subject.next({ ...this.state, isLoading: true, problem: null });
    this.api.library().subscribe({
      next: (entries) => this.subject.next({ entries, isLoading: false, problem: null }),
      error: ({ message }: ApiProblem) => this.subject.next({ ...this.state, isLoading: false, problem: message }),
    });
  }

  /** Puts an item's draft in the place of its published revision, to be tried on a scene; null takes that back. */
  tryDraft(id: string | null): void {
    this.tried.next(id);
  }

  /** Takes entries as the server has just given them, so that the screen need not wait for the news. */
  take(entries: readonly LibraryEntry[]): void {
    const byId = new Map(entries.map((entry) => [entry.item.id, entry]));
    const standing = this.state.entries.map((entry) => byId.get(entry.item.id) ?? entry);
    const known = new Set(this.state.entries.map(({ item }) => item.id));
    const added = entries.filter(({ item }) => !known.has(item.id));
    this.subject.next({ ...this.state, entries: [...standing, ...added] });
  }

  /** Forgets an item that is no longer there. */
  drop(id: string): void {
    this.subject.next({ ...this.state, entries: this.state.entries.filter(({ item }) => item.id !== id) });
  }

  private follow(heard: readonly Heard[]): void {
    const ids = [...new Set(heard.flatMap((news) => (news.topic === 'library' ? news.ids : [])))];
    if (heard.some(({ topic }) => topic === 'missed') || ids.length > FEW) {
      this.load();
      return;
    }
    this.api.library(ids).subscribe({
      next: (entries) => {
        const found = new Set(entries.map(({ item }) => item.id));
        this.take(entries);
        for (const id of ids) if (!found.has(id)) this.drop(id);
      },
      error: () => this.load(),
    });
  }
}
