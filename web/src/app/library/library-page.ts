import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { type ChannelFamily, type LibraryItem, type Phase } from '@wexikine/core';
import { GhostTrail } from '../drawing/ghost-trail';
import { Icon } from '../icons/icon';
import { countFamilies, countPhases, familiesOf, matchesFacets, type Facets } from './facets';
import { LibraryDrawer } from './library-drawer';
import { LibraryService } from './library.service';
import { createSearch } from './search';

/** The library: tiles that show the motion itself, facets, and a drawer to try parameters. */
@Component({
  selector: 'wx-library-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [GhostTrail, Icon, LibraryDrawer],
  templateUrl: './library-page.html',
  styleUrl: './library-page.scss',
})
export class LibraryPage {
  private readonly service = inject(LibraryService);
  protected readonly state = toSignal(this.service.state$, { requireSync: true });
  protected readonly query = signal('');
  protected readonly facets = signal<Facets>({ phase: null, family: null });
  protected readonly hovered = signal<string | null>(null);
  private readonly chosenId = signal<string | null>(null);

  private readonly search = computed(() => createSearch(this.state().items));
  private readonly found = computed(() => this.search()(this.query()));
  protected readonly items = computed(() => this.found().filter((item) => matchesFacets(item, this.facets())));
  protected readonly phases = computed(() => countPhases(this.found(), this.facets()));
  protected readonly families = computed(() => countFamilies(this.found(), this.facets()));
  protected readonly chosen = computed(
    (): LibraryItem | null => this.items().find(({ id }) => id === this.chosenId()) ?? this.items()[0] ?? null,
  );

  /** The first two families that a preset moves, and how many more there are. */
  protected moves(item: LibraryItem): string {
    const families = familiesOf(item);
    const rest = families.length - 2;
    return families.slice(0, 2).join(' · ') + (rest > 0 ? ` + ${rest}` : '');
  }

  protected type(event: Event): void {
    this.query.set((event.target as HTMLInputElement).value);
  }

  protected choose({ id }: LibraryItem): void {
    this.chosenId.set(id);
  }

  protected togglePhase(phase: Phase): void {
    this.facets.update((facets) => ({ ...facets, phase: facets.phase === phase ? null : phase }));
  }

  protected toggleFamily(family: ChannelFamily): void {
    this.facets.update((facets) => ({ ...facets, family: facets.family === family ? null : family }));
  }

  protected clear(): void {
    this.query.set('');
    this.facets.set({ phase: null, family: null });
  }

  protected reload(): void {
    this.service.load();
  }
}
