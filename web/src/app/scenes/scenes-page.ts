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
import { MatMenuModule } from '@angular/material/menu';
import { MatSnackBar } from '@angular/material/snack-bar';
import { Router, RouterLink } from '@angular/router';
import {
  DAYS_DELETED_KEPT,
  dataProblems,
  filesOf,
  formatRate,
  formatShort,
  readBundle,
  sceneSchema,
  upgradeScene,
  type Scene,
  type SceneSummary,
} from '@wexikine/core';
import { firstValueFrom, type Observable } from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';
import { personName } from '../api/person';
import { ScenePicture } from '../drawing/scene-picture';
import { GuideService } from '../guide/guide.service';
import { keepFile } from '../files/keep-file';
import { Icon } from '../icons/icon';
import { TopBar } from '../top-bar';
import { NewSceneDialog } from './new-scene-dialog';

interface Tile {
  readonly summary: SceneSummary;
  readonly scene: Scene | null;
}

const UNDO_FOR = 10_000;
/** The demo scene whose copy the guide is done in. */
const GUIDE_SCENE = 'programme-board';

/** What a file is called in a scene: by the first layer that uses it, and a font's family. */
function calledIn(
  { layers }: Pick<Scene, 'layers'>,
  name: string,
): { readonly title: string; readonly family?: string } {
  const layer = layers.find((one) => filesOf(one).includes(name));
  if (layer?.source.type === 'text') return { title: layer.source.font, family: layer.source.font };
  return { title: layer?.name ?? name.slice(0, 12) };
}

/** The list of scenes with a small live picture each. */
@Component({
  selector: 'wx-scenes-page',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, RouterLink, ScenePicture],
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
  protected readonly hovered = signal<string | null>(null);
  protected readonly renaming = signal<string | null>(null);

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

  protected facts({ width, height, rate, length, layers }: SceneSummary): string {
    const count = layers === 1 ? '1 layer' : `${layers} layers`;
    return `${count} · ${formatShort(length, rate)} · ${width}×${height} · ${formatRate(rate)} fps`;
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

  protected startRename(id: string): void {
    this.renaming.set(id);
    setTimeout(() => document.querySelector<HTMLInputElement>('.rename')?.select());
  }

  protected async rename({ id, name }: SceneSummary, event: Event): Promise<void> {
    if (this.renaming() !== id) return;
    this.renaming.set(null);
    const wanted = (event.target as HTMLInputElement).value.trim();
    if (wanted === '' || wanted === name) return;
    const done = await this.ask(this.api.renameScene(id, wanted, personName()));
    if (done) this.change(id, (tile) => ({ ...tile, summary: { ...tile.summary, name: wanted } }));
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
    const bytes = new Uint8Array(await file.arrayBuffer());
    if (bytes[0] !== 0x50 || bytes[1] !== 0x4b) return this.readText(file.name, new TextDecoder().decode(bytes));
    const read = readBundle(bytes);
    if (!read.ok) {
      this.tell(`${file.name} cannot be imported. ${read.message}`);
      return null;
    }
    const scene = this.checkScene(file.name, read.data);
    if (!scene) return null;
    try {
      for (const [name, contents] of read.files) {
        const { title, family } = calledIn(scene, name);
        await keepFile(new Blob([contents as Uint8Array<ArrayBuffer>]), title, family === undefined ? {} : { family });
      }
    } catch (error) {
      this.tell(`${file.name} was not imported: ${(error as Error).message}`);
      return null;
    }
    return scene;
  }

  private readText(name: string, text: string): Omit<Scene, 'id'> | null {
    try {
      return this.checkScene(name, JSON.parse(text));
    } catch {
      this.tell(`${name} is not a JSON file. Choose a scene that Wexikine exported.`);
      return null;
    }
  }

  private checkScene(name: string, data: unknown): Omit<Scene, 'id'> | null {
    const parsed = sceneSchema.safeParse(upgradeScene(data));
    if (parsed.success) {
      const { id: _id, ...scene } = parsed.data;
      return scene;
    }
    const [{ path, message }] = dataProblems(parsed.error);
    this.tell(`${name} is not a scene of Wexikine. ${path}: ${message}`);
    return null;
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
