import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { Icon } from '../icons/icon';
import { ItemPicture } from './item-picture';
import type { LibraryRow } from './rows';

const KIND_WORDS = {
  rig: 'rig',
  look: 'look',
  palette: 'palette',
  curve: 'curve',
  house: 'house value',
  recipe: 'recipe',
} as const;

/** One item of the library: its motion, name, what it moves, its state; it can be ticked and marked as a favourite. */
@Component({
  selector: 'wx-item-tile',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, ItemPicture],
  template: `
    <button
      class="open"
      type="button"
      [attr.tabindex]="isCurrent() ? 0 : -1"
      [attr.aria-pressed]="isChosen()"
      [class.chosen]="isChosen()"
      [class.ticked]="isTicked()"
      (click)="click($event)"
      (dblclick)="opened.emit()"
      (mouseenter)="isHovered.set(true)"
      (mouseleave)="isHovered.set(false)"
      (focus)="isHovered.set(true)"
      (blur)="isHovered.set(false)"
    >
      <wx-item-picture [item]="row().item" [playing]="isHovered()" />
      <span class="name" [title]="row().item.name">{{ row().item.name }}</span>
      <span class="facts">
        <span>{{ moves() }}</span>
        <span class="mono">{{ mark() }}</span>
      </span>
    </button>
    <input
      type="checkbox"
      class="tick"
      [attr.tabindex]="-1"
      [class.shown]="isPicking()"
      [checked]="isTicked()"
      [attr.aria-label]="'Select ' + row().item.name"
      (change)="ticked.emit()"
    />
    @if (isFavourite()) {
      <wx-icon class="star" name="star-fill" /><span class="visually-hidden">a favourite</span>
    }
  `,
  styleUrl: './item-tile.scss',
  host: { class: 'tile' },
})
export class ItemTile {
  readonly row = input.required<LibraryRow>();
  readonly isChosen = input(false);
  /** Whether the arrow keys start from here. */
  readonly isCurrent = input(false);
  readonly isTicked = input(false);
  /** Whether several are being picked, so that the boxes to tick stay in sight. */
  readonly isPicking = input(false);
  readonly isFavourite = input(false);
  readonly chosen = output();
  readonly ticked = output();
  readonly opened = output();

  protected readonly isHovered = signal(false);

  /** The first two families that a preset moves, and how many more there are; else what it is. */
  protected readonly moves = computed(() => {
    const { families, kind } = this.row();
    if (kind !== 'preset' && kind !== 'rig') return KIND_WORDS[kind];
    const rest = families.length - 2;
    return families.slice(0, 2).join(' · ') + (rest > 0 ? ` + ${rest}` : '') || 'nothing yet';
  });

  protected readonly mark = computed(() => {
    const { item, entry } = this.row();
    if (item.state === 'draft' || item.state === 'in review') return item.state;
    if (item.state === 'retired') return 'retired';
    return entry.draft ? `r${item.revision} + draft` : `r${item.revision}`;
  });

  protected click(event: MouseEvent): void {
    if (event.ctrlKey || event.metaKey || event.shiftKey) this.ticked.emit();
    else this.chosen.emit();
  }
}
