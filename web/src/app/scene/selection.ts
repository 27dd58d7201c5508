import { computed, Injectable, linkedSignal, signal } from '@angular/core';

/** Which layers are selected: one that leads, whose panel and curves are shown, and others besides it. */
@Injectable()
export class Selection {
  /** The layer that leads; null where none is selected. */
  readonly lead = signal<string | null>(null);
  /** Layers besides it; selecting another one alone forgets them. */
  private readonly besides = linkedSignal<string | null, ReadonlySet<string>>({
    source: this.lead,
    computation: () => new Set(),
  });
  readonly all = computed((): ReadonlySet<string> => {
    const lead = this.lead();
    return new Set([...(lead === null ? [] : [lead]), ...this.besides()]);
  });

  /** Selects one layer alone, also where it led several; null selects none. */
  one(id: string | null): void {
    this.only(id === null ? [] : [id]);
  }

  /** Selects these alone. */
  only([first, ...others]: readonly string[]): void {
    this.lead.set(first ?? null);
    this.besides.set(new Set(others));
  }

  /** Selects one more layer, or one less. */
  flip(id: string): void {
    if (this.lead() === null) return this.only([id]);
    if (this.lead() === id) return;
    this.besides.update((also) =>
      also.has(id) ? new Set([...also].filter((one) => one !== id)) : new Set([...also, id]),
    );
  }
}
