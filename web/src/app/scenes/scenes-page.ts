import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  type OnDestroy,
  type AfterViewInit,
  type TemplateRef,
  viewChild,
} from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router } from '@angular/router';
import { DAYS_DELETED_KEPT, type Scene, type SceneSummary } from '@wexikine/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { personName } from '../api/person';
import { GuideService } from '../guide/guide.service';
import { keepFile } from '../files/keep-file';
import { Icon } from '../icons/icon';
import { TopBar } from '../top-bar';
import { NewSceneDialog } from './new-scene-dialog';
import { readSceneFile } from './scene-file';
import { SceneTile } from './scene-tile';

interface Tile {
  readonly summary: SceneSummary;
  readonly scene: Scene | null;
}

const UNDO_FOR = 10_000;
/** The demo scene whose copy the guide is done in. */
const GUIDE_SCENE = 'programme-board';

/** The list of scenes with a small live picture each. */
@Component({
  selector: 'wx-scenes-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, SceneTile],
  templateUrl: './scenes-page.html',
  styleUrl: './scenes-page.scss',
})
export class ScenesPage implements AfterViewInit, OnDestroy {
  private readonly api = inject(ApiService);
  private readonly router = inject(Router);
  private readonly dialog = inject(MatDialog);
  private readonly snackBar = inject(MatSnackBar);
  private readonly topBar = inject(TopBar);
  private readonly bar = viewChild.required<TemplateRef<unknown>>('bar');

  protected readonly guides = inject(GuideService);
  /** Set where the guide is asked for again. */
  readonly guide = input<string>();
  /** The scene that the guided first batch is done in a copy of; null where it is not offered. */
  protected readonly guideScene = computed(() => {
    if (!this.guides.isOffered()) return null;
    return this.tiles()?.find(({ summary }) => summary.id === GUIDE_SCENE)?.summary.id ?? null;
  });
  protected readonly tiles = signal<readonly Tile[] | null>(null);
  protected readonly problem = signal<string | null>(null);

  constructor() {
    effect(() => {
      if (this.guide() !== undefined) this.guides.again();
    });
    void this.load();
  }

  ngAfterViewInit(): void {
    this.topBar.content.set(this.bar());
  }

  ngOnDestroy(): void {
    this.topBar.content.set(null);
  }

  protected async load(): Promise<void> {
    this.problem.set(null);
    const summaries = await this.ask(this.api.scenes());
    if (!summaries) return;
    this.tiles.set(summaries.map((summary) => ({ summary, scene: null })));
    for (const { id } of summaries) {
      const stored = await firstValueFrom(this.api.scene(id)).catch(() => null);
      if (stored) this.change(id, (tile) => ({ ...tile, scene: stored.scene }));
    }
  }

  protected async startGuide(id: string): Promise<void> {
    const copy = await this.ask(this.api.copyScene(id, personName()));
    if (copy) await this.router.navigate(['/scenes', copy.scene.id], { queryParams: { guide: 'first' } });
  }

  protected newScene(): void {
    this.dialog
      .open<NewSceneDialog, undefined, Omit<Scene, 'id'>>(NewSceneDialog, { width: '460px' })
      .afterClosed()
      .subscribe((scene) => {
        if (scene) void this.create(scene);
      });
  }

  protected async importFile(event: Event): Promise<void> {
    const field = event.target as HTMLInputElement;
    const [file] = field.files ?? [];
    field.value = '';
    if (!file) return;
    const scene = await this.readFile(file);
    if (scene) await this.create(scene);
  }

  protected async rename(id: string, name: string): Promise<void> {
    const done = await this.ask(this.api.renameScene(id, name, personName()));
    if (done) this.change(id, (tile) => ({ ...tile, summary: { ...tile.summary, name } }));
  }

  protected async copy(id: string): Promise<void> {
    if (await this.ask(this.api.copyScene(id, personName()))) await this.load();
  }

  protected async delete({ id, name }: SceneSummary): Promise<void> {
    const before = this.tiles();
    await firstValueFrom(this.api.deleteScene(id)).catch(({ message }: ApiProblem) => this.tell(message));
    this.tiles.update((tiles) => tiles?.filter((tile) => tile.summary.id !== id) ?? null);
    this.snackBar
      .open(`“${name}” was deleted; it is kept for ${DAYS_DELETED_KEPT} days.`, 'Undo', { duration: UNDO_FOR })
      .onAction()
      .subscribe(() => {
        this.api.restoreScene(id).subscribe({
          next: () => this.tiles.set(before),
          error: ({ message }: ApiProblem) => this.tell(message),
        });
      });
  }

  /** A scene of a file, whose pictures and fonts are kept first. */
  private async readFile(file: File): Promise<Omit<Scene, 'id'> | null> {
    const read = readSceneFile(file.name, new Uint8Array(await file.arrayBuffer()));
    if (!read.ok) {
      this.tell(read.message);
      return null;
    }
    try {
      for (const { contents, title, family } of read.parts) {
        await keepFile(contents, title, family === undefined ? {} : { family });
      }
    } catch (error) {
      this.tell(`${file.name} was not imported: ${(error as Error).message}`);
      return null;
    }
    return read.scene;
  }

  private async create(scene: Omit<Scene, 'id'>): Promise<void> {
    const created = await this.ask(this.api.createScene({ scene: { ...scene }, by: personName() }));
    if (created) await this.router.navigate(['/scenes', created.scene.id]);
  }

  private change(id: string, how: (tile: Tile) => Tile): void {
    this.tiles.update((tiles) => tiles?.map((tile) => (tile.summary.id === id ? how(tile) : tile)) ?? null);
  }

  private async ask<T>(request: Observable<T>): Promise<T | null> {
    try {
      return await firstValueFrom(request);
    } catch (error) {
      const { message } = error as ApiProblem;
      if (this.tiles() === null) this.problem.set(message);
      else this.tell(message);
      return null;
    }
  }

  private tell(message: string): void {
    this.snackBar.open(message, 'Close', { duration: 12_000 });
  }
}
