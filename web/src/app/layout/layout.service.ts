import { Injectable, signal } from '@angular/core';

const KEY = 'wexikine.layout';

/** How the scene screen is divided; shares of its width and height. */
export interface Layout {
  /** Share of the width that the run sheet has. */
  readonly sheet: number;
  /** Share of the height on the right that the preview has, above the panels. */
  readonly preview: number;
  readonly isPanelFolded: boolean;
}

/** How the parts of the screen are shared out at first. */
export const USUAL: Layout = { sheet: 0.57, preview: 0.5, isPanelFolded: false };
/** What is left of a part at least, and the most it can have. */
const LEAST = { sheet: 0.2, preview: 0.2 } as const;
const MOST = { sheet: 0.8, preview: 0.8 } as const;

function within(value: unknown, part: 'sheet' | 'preview'): number {
  const number = typeof value === 'number' && Number.isFinite(value) ? value : USUAL[part];
  return Math.min(MOST[part], Math.max(LEAST[part], number));
}

/** A layout from what the browser kept, whatever that is. */
export function readLayout(text: string | null): Layout {
  let kept: Partial<Layout> | null = null;
  try {
    kept = JSON.parse(text ?? 'null') as Partial<Layout> | null;
  } catch {
    // What cannot be read is as if nothing had been kept.
  }
  return {
    sheet: within(kept?.sheet, 'sheet'),
    preview: within(kept?.preview, 'preview'),
    isPanelFolded: kept?.isPanelFolded === true,
  };
}

/** How the scene screen is divided, remembered by this browser. */
@Injectable({ providedIn: 'root' })
export class LayoutService {
  private readonly state = signal(readLayout(localStorage.getItem(KEY)));
  readonly layout = this.state.asReadonly();

  set(part: Partial<Layout>): void {
    const next = readLayout(JSON.stringify({ ...this.state(), ...part }));
    this.state.set(next);
    localStorage.setItem(KEY, JSON.stringify(next));
  }
}
