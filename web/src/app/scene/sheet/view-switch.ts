import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';

/** What stands beside the preview. */
export const SHEET_VIEWS = ['sheet', 'keys', 'curves'] as const;
/** What stands beside the preview: layers with what a run gives them, keys in rows of channels, or curves by hand. */
export type SheetView = (typeof SHEET_VIEWS)[number];

const WORDS: Readonly<Record<SheetView, { readonly label: string; readonly title: string }>> = {
  sheet: { label: 'Run sheet', title: 'Layers, and what a run gives to each' },
  keys: { label: 'Keys', title: 'Keys in rows of channels (K)' },
  curves: { label: 'Curves', title: 'Curves by hand (C)' },
};

/** Changes between the run sheet, the keys and the curves; all three show the same stretch of time. */
@Component({
  selector: 'wx-view-switch',
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { role: 'group', 'aria-label': 'View' },
  template: `
    @for (view of views; track view) {
      <button
        type="button"
        [attr.aria-pressed]="view === shown()"
        [title]="words[view].title"
        (click)="changed.emit(view)"
      >
        {{ words[view].label }}
      </button>
    }
  `,
  styles: `
    :host {
      display: flex;
      flex: none;
      border-radius: 14px;
      background: var(--pill);
      overflow: hidden;
    }
    button {
      height: 26px;
      padding: 0 12px;
      border: 0;
      border-radius: 14px;
      background: none;
      color: var(--ink);
      font: 600 13px var(--font-text);
      cursor: pointer;
    }
    button[aria-pressed='true'] {
      background: var(--ink);
      color: var(--paper);
    }
  `,
})
export class ViewSwitch {
  readonly shown = input.required<SheetView>();
  readonly changed = output<SheetView>();
  protected readonly views = SHEET_VIEWS;
  protected readonly words = WORDS;
}
