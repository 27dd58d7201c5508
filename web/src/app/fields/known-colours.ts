import { Injectable } from '@angular/core';
import { paletteColours, type LibraryItem } from '@wexikine/core';
import { BehaviorSubject } from 'rxjs';

/** A colour with a name. */
export interface KnownColour {
  readonly name: string;
  readonly colour: string;
}

/** Colours of a library that are offered where one is chosen: its house colours, then those of its palettes, each once. */
export function knownColours(items: readonly LibraryItem[]): KnownColour[] {
  const published = items.filter(({ state }) => state === 'published');
  const house = published.flatMap((item): KnownColour[] =>
    item.kind === 'house' && item.body.type === 'colour' && 'value' in item.body && item.body.value !== undefined
      ? [{ name: item.name, colour: String(item.body.value) }]
      : [],
  );
  const palettes = published.flatMap((item): KnownColour[] =>
    item.kind === 'palette'
      ? paletteColours(item.body, undefined).map((colour, i) => ({
          name: `${item.name}: ${item.body.colours[i]?.name ?? i + 1}`,
          colour,
        }))
      : [],
  );
  const all = [...house, ...palettes];
  return all.filter(({ colour }, i) => all.findIndex((one) => one.colour === colour) === i);
}

/** The colours that swatches offer; whoever knows the library says which. */
@Injectable({ providedIn: 'root' })
export class KnownColours {
  private readonly subject = new BehaviorSubject<readonly KnownColour[]>([]);
  readonly colours$ = this.subject.asObservable();

  know(items: readonly LibraryItem[]): void {
    this.subject.next(knownColours(items));
  }
}
