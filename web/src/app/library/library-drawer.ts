import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  linkedSignal,
  output,
  signal,
  untracked,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatMenuModule } from '@angular/material/menu';
import { Router } from '@angular/router';
import {
  counted,
  createShelf,
  formatEasing,
  houseText,
  isPreset,
  isRig,
  literalWords,
  recipeWords,
  referencesOf,
  type LibraryDetail,
  type LibraryItem,
  type Recipe,
  type SceneSummary,
} from '@wexikine/core';
import { ApiService, type ApiProblem } from '../api/api.service';
import { Icon } from '../icons/icon';
import { DrawerRecord } from './drawer-record';
import { ItemPicture } from './item-picture';
import { LibraryActions } from './library-actions.service';
import { LibraryService } from './library.service';
import { PersonalService } from './personal.service';
import type { LibraryRow } from './rows';
import { TryParameters } from './try-parameters';

/** One item in the drawer: its motion with parameters that can be tried at once, its revisions, where it is used. */
@Component({
  selector: 'wx-library-drawer',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [DrawerRecord, Icon, ItemPicture, MatMenuModule, TryParameters],
  templateUrl: './library-drawer.html',
  styleUrl: './library-drawer.scss',
})
export class LibraryDrawer {
  readonly row = input.required<LibraryRow>();
  readonly isFavourite = input(false);
  readonly opened = output();
  readonly favoured = output();

  private readonly api = inject(ApiService);
  private readonly router = inject(Router);
  private readonly library = inject(LibraryService);
  private readonly personal = inject(PersonalService);
  protected readonly counted = counted;
  protected readonly actions = inject(LibraryActions);
  protected readonly shelf = toSignal(this.library.shelf$, { initialValue: createShelf([]) });
  private readonly state = toSignal(this.library.state$, { requireSync: true });
  protected readonly isPlaying = signal(false);
  protected readonly scenes = signal<readonly SceneSummary[]>([]);
  protected readonly problem = signal<string | null>(null);
  protected readonly detail = signal<LibraryDetail | null>(null);

  protected readonly item = computed((): LibraryItem => this.row().item);
  protected readonly preset = computed(() => {
    const item = this.item();
    return isPreset(item) ? item : null;
  });
  /** A preset or a rig, whose parameters can be tried. */
  protected readonly dialled = computed(() => {
    const item = this.item();
    return isPreset(item) || isRig(item) ? item : null;
  });
  private readonly id = computed(() => this.item().id);

  /** What was tried, by parameter; forgotten when another item is chosen. */
  protected readonly tried = linkedSignal<string, Readonly<Record<string, string>>>({
    source: this.id,
    computation: () => ({}),
  });
  protected readonly isTried = computed(() => Object.keys(this.tried()).length > 0);

  /** A curve as CSS text, what a house value is, or what a recipe says. */
  protected readonly text = computed(() => {
    const item = this.item();
    if (item.kind === 'curve') return formatEasing(item.body.easing);
    if (item.kind === 'recipe') return recipeWords(item.body as Recipe, this.shelf());
    return item.kind === 'house' ? literalWords(houseText(item.body)) : null;
  });

  /** Items that take something from this one, and the exit that mirrors it. */
  protected readonly users = computed(() =>
    this.state()
      .entries.map(({ item }) => ({ item, uses: referencesOf(item).filter(({ id }) => id === this.id()) }))
      .filter(({ uses }) => uses.length > 0),
  );

  constructor() {
    effect((onCleanup) => {
      const { entry } = this.row();
      if (untracked(this.detail)?.entry.item.id !== entry.item.id) this.detail.set(null);
      const request = this.api.item(entry.item.id).subscribe({
        next: (detail) => this.detail.set(detail),
        error: () => this.detail.set(null),
      });
      onCleanup(() => request.unsubscribe());
    });
  }

  protected try({ name, text }: { readonly name: string; readonly text: string }): void {
    this.tried.update((tried) => ({ ...tried, [name]: text }));
  }

  protected reset(): void {
    this.tried.set({});
  }

  protected loadScenes(): void {
    this.problem.set(null);
    this.api.scenes().subscribe({
      next: (scenes) => this.scenes.set(scenes),
      error: ({ message }: ApiProblem) => this.problem.set(message),
    });
  }

  protected async useIn(scene: SceneSummary): Promise<void> {
    this.personal.touch(this.id());
    await this.router.navigate(['/scenes', scene.id], {
      queryParams: ['recipe', 'look'].includes(this.item().kind) ? { recipe: this.id() } : { preset: this.id() },
    });
  }

  protected async copyText(): Promise<void> {
    await navigator.clipboard.writeText(this.text() ?? '');
    this.actions.tell('Copied.');
  }

  protected async makeExit(): Promise<void> {
    const item = this.preset();
    if (item) await this.actions.makeExit(item);
  }
}
