import { ScrollingModule } from '@angular/cdk/scrolling';
import { ChangeDetectionStrategy, Component, computed, effect, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { Scene } from '@wexikine/core';
import { ScenePicture } from '../../drawing/scene-picture';
import { Icon } from '../../icons/icon';
import type { ArtworkReader } from './artwork-reader';
import { countLayers, treeRows, wholeAtLevel, type DrawingLevel, type TreeRow } from './drawing-tree';
import type { BroughtFile } from './messages';

/** A drawing that was read. */
export type ReadDrawing = Extract<BroughtFile, { type: 'drawing' }>;

/** Drawings that are to come in, where, and who read them. */
export interface DrawingQuestion {
  readonly drawings: readonly ReadDrawing[];
  readonly reader: ArtworkReader;
  readonly scene: Scene;
}

/** For each drawing the groups that stay whole. */
export type DrawingAnswer = readonly (readonly string[])[];

/** More layers than anybody can work with, and than a scene should be given at once. */
const MOST_LAYERS = 5_000;
const SETTLE_MS = 120;

const LEVELS: readonly { readonly level: DrawingLevel; readonly label: string; readonly note: string }[] = [
  { level: 'one', label: 'One picture', note: 'all of it is one layer' },
  { level: 'top', label: 'Groups', note: 'each group on top is a layer' },
  { level: 'all', label: 'Every part', note: 'shapes and words can be changed' },
];

/** Asks how far drawings are to be taken apart, and shows what that gives. */
@Component({
  selector: 'wx-drawing-dialog',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatDialogModule, ScenePicture, ScrollingModule],
  templateUrl: './drawing-dialog.html',
  styleUrl: './drawing-dialog.scss',
})
export class DrawingDialog {
  protected readonly asked = inject<DrawingQuestion>(MAT_DIALOG_DATA);
  private readonly reference = inject(MatDialogRef<DrawingDialog, DrawingAnswer>);
  protected readonly levels = LEVELS;
  protected readonly shown = signal(0);
  private readonly wholes = signal(this.asked.drawings.map(({ tree }) => wholeAtLevel(tree, 'all')));
  private readonly open = signal<ReadonlySet<string>>(new Set(['d']));
  protected readonly picture = signal<Scene | null>(null);
  protected readonly problem = signal<string | null>(null);

  protected readonly drawing = computed(() => this.asked.drawings[this.shown()]);
  protected readonly rows = computed(() => treeRows(this.drawing().tree, this.wholes()[this.shown()], this.open()));
  protected readonly count = computed(() =>
    this.asked.drawings.reduce((sum, { tree }, i) => sum + countLayers(tree, this.wholes()[i]), 0),
  );
  protected readonly isTooMany = computed(() => this.count() > MOST_LAYERS);
  protected readonly most = MOST_LAYERS;
  /** The level that all drawings are at now; null where somebody chose for themselves. */
  protected readonly level = computed(() => {
    const text = (sets: readonly ReadonlySet<string>[]): string => sets.map((set) => [...set].join()).join(';');
    const now = text(this.wholes());
    const found = LEVELS.find(
      ({ level }) => text(this.asked.drawings.map(({ tree }) => wholeAtLevel(tree, level))) === now,
    );
    return found?.level ?? null;
  });

  constructor() {
    effect((onCleanup) => {
      const [drawing, whole] = [this.drawing(), this.wholes()[this.shown()]];
      const timer = setTimeout(() => void this.draw(drawing, whole), SETTLE_MS);
      onCleanup(() => clearTimeout(timer));
    });
  }

  protected icon(kind: ReadDrawing['tree']['kind']): string {
    return kind === 'group' ? 'folder' : kind === 'words' ? 'text_fields' : kind === 'picture' ? 'image' : 'category';
  }

  protected rowId(_place: number, { part }: TreeRow): string {
    return part.id;
  }

  protected choose(level: DrawingLevel): void {
    this.wholes.set(this.asked.drawings.map(({ tree }) => wholeAtLevel(tree, level)));
  }

  protected split(id: string, isSplit: boolean): void {
    const change = (set: ReadonlySet<string>): Set<string> => {
      const next = new Set(set);
      if (isSplit) next.delete(id);
      else next.add(id);
      return next;
    };
    this.wholes.update((sets) => sets.map((set, i) => (i === this.shown() ? change(set) : set)));
    if (isSplit) this.open.update((open) => new Set([...open, id]));
  }

  protected toggle(id: string): void {
    this.open.update((open) =>
      open.has(id) ? new Set([...open].filter((one) => one !== id)) : new Set([...open, id]),
    );
  }

  protected bring(): void {
    this.reference.close(this.wholes().map((set) => [...set]));
  }

  private async draw(drawing: ReadDrawing, whole: ReadonlySet<string>): Promise<void> {
    if (countLayers(drawing.tree, whole) > MOST_LAYERS) return;
    const { width, height } = drawing;
    const wanted = {
      drawing: drawing.drawing,
      whole: [...whole],
      name: drawing.name,
      at: { x: width / 2, y: height / 2 },
      scale: 1,
      length: 1,
      isKept: false,
    };
    try {
      const { layers, tooLarge } = await this.asked.reader.draw(wanted);
      if (drawing !== this.drawing()) return;
      this.problem.set(
        tooLarge.length === 0
          ? null
          : `Too large for a layer: ${tooLarge.slice(0, 3).join(', ')}. Take it apart further.`,
      );
      this.picture.set({ ...this.asked.scene, width, height, length: 1, layers: [...layers], runs: [], cues: [] });
    } catch (error) {
      this.problem.set(error instanceof Error ? error.message : 'The drawing cannot be shown.');
    }
  }
}
