import { CdkVirtualScrollViewport, ScrollingModule } from '@angular/cdk/scrolling';
import {
  type AfterViewInit,
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  type ElementRef,
  inject,
  input,
  type OnDestroy,
  signal,
  type TemplateRef,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatDialog } from '@angular/material/dialog';
import { Router } from '@angular/router';
import { type HouseItem, type PaletteItem } from '@wexikine/core';
import { Icon } from '../icons/icon';
import { TopBar } from '../top-bar';
import { whenIdle } from '../when-idle';
import { ImportDialog } from './dialogs/import-dialog';
import { exportTokens } from './export-tokens';
import { countFacets, narrow, NO_FACETS, type FacetName, type Facets } from './facets';
import { FacetList } from './facet-list';
import { ItemTile } from './item-tile';
import { LibraryActions } from './library-actions.service';
import { LibraryBar } from './library-bar';
import { LibraryDrawer } from './library-drawer';
import { LibraryService } from './library.service';
import { PersonalService } from './personal.service';
import { rowsOf, SORTS, sortRows, SORT_WORDS, type LibraryRow, type Sort } from './rows';
import { createSearch } from './search';
import { SelectionBar } from './selection-bar';

const GAP = 13;
const LEAST_TILE = 164;
/** Height of a tile's text, and its picture's height as a share of its width. */
const TEXT_HEIGHT = 53;
const PICTURE = 172 / 320;

/** Kinds of items, as one chooses from them. */
const KIND_WORDS: Readonly<Record<string, string>> = {
  preset: 'Presets',
  rig: 'Rigs',
  look: 'Looks',
  palette: 'Palettes',
  curve: 'Curves',
  house: 'House values',
  recipe: 'Recipes',
};

/** The library: tiles that show the motion itself, facets, and a drawer to try parameters. */
@Component({
  selector: 'wx-library-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [FacetList, Icon, ItemTile, LibraryBar, LibraryDrawer, ScrollingModule, SelectionBar],
  templateUrl: './library-page.html',
  styleUrl: './library-page.scss',
  host: { role: 'main' },
})
export class LibraryPage implements AfterViewInit, OnDestroy {
  /** The item that is chosen first, from the address. */
  readonly item = input<string>();

  private readonly service = inject(LibraryService);
  private readonly personalService = inject(PersonalService);
  protected readonly kindWords = KIND_WORDS;
  protected readonly actions = inject(LibraryActions);
  private readonly dialog = inject(MatDialog);
  private readonly router = inject(Router);
  private readonly topBar = inject(TopBar);
  private readonly destroy = inject(DestroyRef);
  private readonly bar = viewChild.required<TemplateRef<unknown>>('bar');
  private readonly main = viewChild.required<ElementRef<HTMLElement>>('main');
  private readonly viewport = viewChild(CdkVirtualScrollViewport);

  protected readonly sorts = SORTS;
  protected readonly sortWords = SORT_WORDS;
  protected readonly state = toSignal(this.service.state$, { requireSync: true });
  protected readonly personal = toSignal(this.personalService.personal$, { requireSync: true });
  protected readonly query = signal('');
  protected readonly facets = signal<Facets>(NO_FACETS);
  protected readonly sort = signal<Sort>('use');
  protected readonly ticked = signal<ReadonlySet<string>>(new Set());
  private readonly chosenId = signal<string | null>(null);
  private readonly width = signal(760);

  private readonly all = computed(() => rowsOf(this.state().entries));
  private readonly byId = computed(() => new Map(this.all().map((row) => [row.id, row])));
  private readonly search = computed(() => createSearch(this.all().map(({ item }) => item)));
  /** Rows that the search finds: by rank while something is searched for, else in the chosen order. */
  private readonly found = computed(() => {
    const byId = this.byId();
    if (this.query().trim() === '') return sortRows(this.all(), this.sort());
    return this.search()(this.query()).flatMap(({ id }) => byId.get(id) ?? []);
  });
  protected readonly counts = computed(() => countFacets(this.found(), this.facets(), this.personal()));
  protected readonly rows = computed(() => narrow(this.found(), this.facets(), this.personal()));
  protected readonly total = computed(() => this.all().filter(({ item }) => item.state !== 'retired').length);
  protected readonly chosen = computed((): LibraryRow | null => {
    const [first] = this.rows();
    return this.byId().get(this.chosenId() ?? '') ?? first ?? null;
  });
  protected readonly house = computed(() =>
    this.all()
      .map(({ item }) => item)
      .filter((item): item is HouseItem => item.kind === 'house' && item.state === 'published'),
  );
  protected readonly selected = computed(() => this.all().filter(({ id }) => this.ticked().has(id)));

  protected readonly columns = computed(() => Math.max(1, Math.floor((this.width() + GAP) / (LEAST_TILE + GAP))));
  protected readonly lineHeight = computed(() => {
    const tile = (this.width() - GAP * (this.columns() - 1)) / this.columns();
    return Math.round(tile * PICTURE) + TEXT_HEIGHT + GAP;
  });
  protected readonly lines = computed(() => {
    const [rows, columns] = [this.rows(), this.columns()];
    return Array.from({ length: Math.ceil(rows.length / columns) }, (_, i) =>
      rows.slice(i * columns, (i + 1) * columns),
    );
  });

  constructor() {
    effect(() => {
      const first = this.item();
      if (first !== undefined) this.chosenId.set(first);
    });
    // The index is made while nothing else is to do, so that the first letter typed need not wait for it.
    effect((onCleanup) => {
      const search = this.search;
      if (this.state().entries.length === 0) return;
      onCleanup(whenIdle(() => search()));
    });
  }

  ngAfterViewInit(): void {
    this.topBar.content.set(this.bar());
    const observer = new ResizeObserver(([{ contentRect }]) => this.width.set(contentRect.width - 2 * 14));
    observer.observe(this.main().nativeElement);
    this.destroy.onDestroy(() => observer.disconnect());
  }

  ngOnDestroy(): void {
    this.topBar.content.set(null);
  }

  protected type(event: Event): void {
    this.query.set((event.target as HTMLInputElement).value);
    this.viewport()?.scrollToIndex(0);
  }

  protected setSort(event: Event): void {
    this.sort.set((event.target as HTMLSelectElement).value as Sort);
  }

  protected choose({ id }: LibraryRow): void {
    this.chosenId.set(id);
  }

  protected toggleFacet(name: FacetName, value: string | null): void {
    this.facets.update((facets) => ({ ...facets, [name]: facets[name] === value ? null : value }));
    this.viewport()?.scrollToIndex(0);
  }

  protected clear(): void {
    this.query.set('');
    this.facets.set(NO_FACETS);
  }

  protected tick({ id }: LibraryRow): void {
    this.ticked.update((ticked) => {
      const next = new Set(ticked);
      if (!next.delete(id)) next.add(id);
      return next;
    });
  }

  protected tickAll(): void {
    this.ticked.set(new Set(this.rows().map(({ id }) => id)));
  }

  protected clearTicks(): void {
    this.ticked.set(new Set());
  }

  protected showHouse(item: HouseItem): void {
    this.chosenId.set(item.id);
  }

  protected open(row: LibraryRow): void {
    this.personalService.touch(row.id);
    void this.router.navigate(['/library', row.id]);
  }

  protected favour({ id }: LibraryRow): void {
    this.personalService.toggleFavourite(id);
  }

  protected import(file: File | null = null): void {
    this.dialog.open(ImportDialog, { data: file, width: '720px', maxWidth: '94vw' });
  }

  protected exportTokens(): void {
    const palettes = this.all()
      .map(({ item }) => item)
      .filter((item): item is PaletteItem => item.kind === 'palette' && item.state === 'published');
    const skipped = exportTokens(this.house(), palettes);
    const tail =
      skipped === 0 ? '' : ` ${skipped === 1 ? '1 curve' : `${skipped} curves`} that is no Bézier was left out.`;
    const also =
      palettes.length === 0 ? '' : palettes.length === 1 ? ' and 1 palette' : ` and ${palettes.length} palettes`;
    this.actions.tell(`${this.house().length - skipped} house values${also} were exported as design tokens.${tail}`);
  }

  protected reload(): void {
    this.service.load();
  }

  protected trackLine(index: number): number {
    return index;
  }

  /** A file dropped anywhere on the library is looked at for import. */
  protected drop(event: DragEvent): void {
    const [file] = event.dataTransfer?.files ?? [];
    if (!file) return;
    event.preventDefault();
    this.import(file);
  }

  /** Arrows go from tile to tile, Space ticks, Enter opens, F marks a favourite. */
  protected key(event: KeyboardEvent): void {
    const row = this.chosen();
    const target = event.target as HTMLElement;
    if (!row || !target.closest('wx-item-tile') || event.ctrlKey || event.metaKey || event.altKey) return;
    const steps: Readonly<Record<string, number>> = {
      ArrowRight: 1,
      ArrowLeft: -1,
      ArrowDown: this.columns(),
      ArrowUp: -this.columns(),
    };
    if (event.key in steps) this.go(steps[event.key]);
    else if (event.key === ' ') this.tick(row);
    else if (event.key === 'Enter') this.open(row);
    else if (event.key.toLowerCase() === 'f') this.favour(row);
    else return;
    event.preventDefault();
  }

  private go(step: number): void {
    const rows = this.rows();
    const next = rows[rows.findIndex(({ id }) => id === this.chosen()?.id) + step];
    if (!next) return;
    this.chosenId.set(next.id);
    const line = Math.floor(rows.indexOf(next) / this.columns());
    const viewport = this.viewport();
    const first = viewport?.measureScrollOffset() ?? 0;
    const height = viewport?.getViewportSize() ?? 0;
    const top = line * this.lineHeight();
    if (top < first || top + this.lineHeight() > first + height) viewport?.scrollToIndex(Math.max(0, line - 1));
    // At once where it is drawn already, so that keys that follow soon do not meet the tile before.
    const focus = (): void => {
      if (this.chosenId() === next.id) document.querySelector<HTMLElement>(`[data-item="${next.id}"] .open`)?.focus();
    };
    focus();
    setTimeout(focus);
  }
}
