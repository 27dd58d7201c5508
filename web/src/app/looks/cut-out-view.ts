import { Injectable, signal } from '@angular/core';

/** Picking a colour on the picture of a layer. */
export interface ColourPick {
  readonly layer: string;
  readonly take: (colour: string) => void;
}

/** What is shown and asked for on the preview while a picture is cut out. */
@Injectable({ providedIn: 'root' })
export class CutOutView {
  /** The layer of which what is kept is shown in white; null shows it as it is. */
  readonly kept = signal<string | null>(null);
  /** The colour that is being picked. */
  readonly picking = signal<ColourPick | null>(null);
}
