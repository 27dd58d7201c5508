import {
  ChangeDetectionStrategy,
  Component,
  computed,
  type ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatMenuModule } from '@angular/material/menu';
import { RouterLink } from '@angular/router';
import { formatRate, formatShort, type Scene, type SceneSummary } from '@wexikine/core';
import { ScenePicture } from '../drawing/scene-picture';
import { Icon } from '../icons/icon';

/** What is told of a scene below its picture, such as “12 layers · 6:00 · 1920×1080 · 25 fps”. */
export function factsOf({ width, height, rate, length, layers }: SceneSummary): string {
  const count = layers === 1 ? '1 layer' : `${layers} layers`;
  return `${count} · ${formatShort(length, rate)} · ${width}×${height} · ${formatRate(rate)} fps`;
}

/** A scene in the list: a picture that plays while it is pointed at, its name, and what can be done with it. */
@Component({
  selector: 'wx-scene-tile',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule, RouterLink, ScenePicture],
  templateUrl: './scene-tile.html',
  styleUrl: './scene-tile.scss',
  host: { '(mouseenter)': 'isPointedAt.set(true)', '(mouseleave)': 'isPointedAt.set(false)' },
})
export class SceneTile {
  readonly summary = input.required<SceneSummary>();
  /** Null while it loads. */
  readonly scene = input.required<Scene | null>();
  readonly renamed = output<string>();
  readonly copied = output();
  readonly deleted = output();

  protected readonly isPointedAt = signal(false);
  protected readonly isRenaming = signal(false);
  protected readonly facts = computed(() => factsOf(this.summary()));
  private readonly name = viewChild<ElementRef<HTMLInputElement>>('name');

  protected startRename(): void {
    this.isRenaming.set(true);
    setTimeout(() => this.name()?.nativeElement.select());
  }

  protected rename(text: string): void {
    if (!this.isRenaming()) return;
    this.isRenaming.set(false);
    const wanted = text.trim();
    if (wanted !== '' && wanted !== this.summary().name) this.renamed.emit(wanted);
  }
}
