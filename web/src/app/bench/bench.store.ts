import { Injectable, inject, type OnDestroy } from '@angular/core';
import {
  revisionOf,
  type CreateItem,
  type ItemKind,
  type LibraryDetail,
  type LibraryEntry,
  type LibraryItem,
  type MoveDraft,
  isSame,
} from '@wexikine/core';
import {
  BehaviorSubject,
  debounceTime,
  distinctUntilChanged,
  firstValueFrom,
  map,
  Subject,
  type Subscription,
} from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { personName } from '../api/person';
import { LibraryService } from '../library/library.service';
import { doBench, redoBench, startBench, undoBench, type BenchHistory } from './history';

/** What is worked on: an item's texts and its body. */
export type Working = Pick<LibraryItem, 'name' | 'note' | 'body'>;

/** How saving the draft stands. */
export type BenchSave =
  /** Nothing differs from what is published. */
  | { readonly type: 'clean' }
  | { readonly type: 'kept'; readonly at: number }
  | { readonly type: 'waiting' }
  | { readonly type: 'saving' }
  | { readonly type: 'failed'; readonly message: string }
  | { readonly type: 'conflict'; readonly message: string };

/** An item on the bench, with its draft and its steps. */
export interface Bench {
  readonly detail: LibraryDetail;
  readonly history: BenchHistory<Working>;
  readonly save: BenchSave;
}

/** How opening the item stands. */
export type BenchLoad =
  | { readonly type: 'loading' }
  | { readonly type: 'failed'; readonly message: string }
  | { readonly type: 'ready'; readonly bench: Bench };

/** Milliseconds without a change after which the draft is saved. */
const QUIET = 600;
/** Milliseconds after which a failed save is tried again. */
const AGAIN = 5_000;

function workingOf({ name, note, body }: LibraryItem): Working {
  return { name, note, body };
}

function shownItem({ item, draft }: LibraryEntry): LibraryItem {
  return draft ?? item;
}

/** One item on the bench: what is worked on, undo and redo, the draft that keeps itself, and its way to publication. */
@Injectable()
export class BenchStore implements OnDestroy {
  private readonly api = inject(ApiService);
  private readonly library = inject(LibraryService);
  private readonly subject = new BehaviorSubject<BenchLoad>({ type: 'loading' });
  private readonly changed = new Subject<void>();
  private readonly subscriptions: Subscription[];
  private again: ReturnType<typeof setTimeout> | undefined;
  private saving: Promise<void> | null = null;
  private id = '';

  readonly load$ = this.subject.asObservable();

  constructor() {
    const mine$ = this.library.state$.pipe(
      map(({ entries }) => entries.find(({ item }) => item.id === this.id) ?? null),
      distinctUntilChanged(),
    );
    this.subscriptions = [
      this.changed.pipe(debounceTime(QUIET)).subscribe(() => void this.save()),
      mine$.subscribe((entry) => void this.follow(entry)),
    ];
  }

  ngOnDestroy(): void {
    clearTimeout(this.again);
    for (const subscription of this.subscriptions) subscription.unsubscribe();
    // What is not kept yet is kept on leaving.
    if (this.hasUnsaved) void this.save();
  }

  get bench(): Bench | null {
    return this.subject.value.type === 'ready' ? this.subject.value.bench : null;
  }

  get hasUnsaved(): boolean {
    const type = this.bench?.save.type;
    return type === 'waiting' || type === 'saving' || type === 'failed' || type === 'conflict';
  }

  async open(id: string): Promise<void> {
    if (id !== this.id) await this.flush();
    this.id = id;
    this.subject.next({ type: 'loading' });
    try {
      this.show(await firstValueFrom(this.api.item(id)));
    } catch (error) {
      this.subject.next({ type: 'failed', message: (error as ApiProblem).message });
    }
  }

  /** Changes what is worked on. Steps with the same `merge` that follow each other soon are one. */
  change(label: string, working: Working, merge: string | null = null): void {
    const { bench } = this;
    if (!bench) return;
    const history = doBench(bench.history, working, { label, merge, when: Date.now() });
    this.touch(bench, history);
  }

  undo(): void {
    const { bench } = this;
    if (bench && bench.history.done.length > 0) this.touch(bench, undoBench(bench.history));
  }

  redo(): void {
    const { bench } = this;
    if (bench && bench.history.undone.length > 0) this.touch(bench, redoBench(bench.history));
  }

  /** Keeps what is not kept yet, once; true where nothing is left waiting. */
  async flush(): Promise<boolean> {
    await this.saving;
    if (this.bench?.save.type === 'failed') await this.saveNow(this.bench);
    await this.save();
    return !this.hasUnsaved;
  }

  /** Moves the draft on, after keeping what is not kept yet. Fails with the server's sentence. */
  async move(to: MoveDraft['to'], summary = ''): Promise<void> {
    await this.flush();
    const { bench } = this;
    if (!bench) return;
    if (bench.save.type === 'failed' || bench.save.type === 'conflict') throw new Error(bench.save.message);
    if (bench.detail.entry.draftVersion === 0) await this.saveNow(bench);
    const base = this.bench?.detail.entry.draftVersion ?? 0;
    const body = { by: personName(), base, to, summary };
    const entry = await firstValueFrom(this.api.moveDraft(this.id, body));
    this.library.take([entry]);
    await this.refresh();
  }

  /** Throws the draft away; the published revision stands again. True where the item itself is gone with it. */
  async discard(): Promise<boolean> {
    const { bench } = this;
    if (!bench) return false;
    const { draftVersion, item } = bench.detail.entry;
    if (draftVersion > 0) await firstValueFrom(this.api.discardDraft(this.id, draftVersion, personName()));
    const isGone = item.state === 'draft' || item.state === 'in review';
    this.set({ ...bench, save: { type: 'clean' } });
    if (isGone) this.library.drop(this.id);
    else await this.open(this.id);
    return isGone;
  }

  /** After a conflict: mine over theirs, or theirs, with mine one undo away. */
  async resolve(choice: 'mine' | 'theirs'): Promise<void> {
    const { bench } = this;
    if (!bench) return;
    const detail = await firstValueFrom(this.api.item(this.id));
    if (choice === 'mine') {
      this.set({ ...bench, detail, save: { type: 'waiting' } });
      await this.save();
      return;
    }
    const theirs = workingOf(shownItem(detail.entry));
    const step = { label: 'Take what the other window has', merge: null, when: Date.now() };
    this.set({ detail, history: doBench(bench.history, theirs, step), save: { type: 'kept', at: Date.now() } });
  }

  private touch(bench: Bench, history: BenchHistory<Working>): void {
    this.set({ ...bench, history, save: { type: 'waiting' } });
    this.changed.next();
  }

  private set(bench: Bench): void {
    this.subject.next({ type: 'ready', bench });
  }

  private show(detail: LibraryDetail): void {
    const { entry } = detail;
    const save: BenchSave =
      entry.draft || entry.item.state === 'draft' ? { type: 'kept', at: Date.now() } : { type: 'clean' };
    this.set({ detail, history: startBench(workingOf(shownItem(entry))), save });
  }

  /** Asks for the item's record and history anew; what is worked on stays. */
  private async refresh(): Promise<void> {
    const detail = await firstValueFrom(this.api.item(this.id));
    const { bench } = this;
    if (!bench) return;
    this.set({ ...bench, detail, save: detail.entry.draft ? { type: 'kept', at: Date.now() } : { type: 'clean' } });
  }

  private async save(): Promise<void> {
    const { bench } = this;
    if (!bench || this.saving || bench.save.type === 'clean' || bench.save.type === 'kept') return;
    if (bench.save.type === 'conflict') return;
    await this.saveNow(bench);
  }

  private async saveNow(bench: Bench): Promise<void> {
    clearTimeout(this.again);
    this.saving = this.send(bench);
    await this.saving;
    this.saving = null;
    if (this.bench?.save.type === 'waiting') await this.save();
  }

  private async send(bench: Bench): Promise<void> {
    const working = bench.history.now;
    this.set({ ...bench, save: { type: 'saving' } });
    try {
      const entry = await firstValueFrom(this.api.saveDraft(this.id, this.request(bench)));
      this.kept(entry, working);
    } catch (error) {
      this.failed(error as ApiProblem);
    }
  }

  private request({ detail, history }: Bench) {
    const { name, note, body } = history.now;
    const kind: ItemKind = detail.record.kind;
    const content = { kind, body } as CreateItem['content'];
    return { by: personName(), base: detail.entry.draftVersion, name: name.trim() || 'Without a name', note, content };
  }

  private kept(entry: LibraryEntry, working: Working): void {
    const { bench } = this;
    if (!bench) return;
    const isNewest = bench.history.now === working;
    const detail = { ...bench.detail, entry };
    this.set({ ...bench, detail, save: isNewest ? { type: 'kept', at: Date.now() } : { type: 'waiting' } });
    this.library.take([entry]);
  }

  private failed({ message, code }: ApiProblem): void {
    const { bench } = this;
    if (!bench) return;
    this.set({ ...bench, save: code === 'conflict' ? { type: 'conflict', message } : { type: 'failed', message } });
    if (code === 'offline') this.again = setTimeout(() => void this.save(), AGAIN);
  }

  /** Another window changed the item: where nothing of one's own is waiting, it is shown as it stands now. */
  private async follow(entry: LibraryEntry | null): Promise<void> {
    const { bench } = this;
    if (!bench || !entry || this.hasUnsaved) return;
    const known = bench.detail.entry;
    if (entry.draftVersion === known.draftVersion && entry.item.revision === known.item.revision) return;
    const detail = await firstValueFrom(this.api.item(this.id)).catch(() => null);
    if (!detail || this.hasUnsaved || !this.bench) return;
    const theirs = workingOf(shownItem(detail.entry));
    const step = { label: 'Changed in another window', merge: null, when: Date.now() };
    // News of one's own move, such as sending it for review, changes nothing of the work.
    const isSameWork = isSame(theirs, this.bench.history.now);
    const history = isSameWork ? this.bench.history : doBench(this.bench.history, theirs, step);
    this.set({ detail, history, save: detail.entry.draft ? { type: 'kept', at: Date.now() } : { type: 'clean' } });
  }
}

/** The revision that an item's work is compared with first: the newest published one. */
export function publishedOf({ record }: LibraryDetail): LibraryItem | null {
  return revisionOf(record);
}
