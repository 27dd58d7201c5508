import { Injectable } from '@angular/core';
import { BehaviorSubject } from 'rxjs';
import type { Personal } from './facets';

const STORED = 'wexikine.library';
const MOST_RECENT = 24;

function read(): Personal {
  try {
    const stored = JSON.parse(localStorage.getItem(STORED) ?? '{}') as Partial<Personal>;
    const list = (value: unknown): string[] =>
      Array.isArray(value) ? value.filter((id): id is string => typeof id === 'string') : [];
    return { favourites: list(stored.favourites), recent: list(stored.recent) };
  } catch {
    return { favourites: [], recent: [] };
  }
}

/** Favourites and the items opened last. They are one's own, so this browser keeps them. */
@Injectable({ providedIn: 'root' })
export class PersonalService {
  private readonly subject = new BehaviorSubject<Personal>(read());
  readonly personal$ = this.subject.asObservable();

  constructor() {
    // Another window of this browser changed them.
    addEventListener('storage', ({ key }) => key === STORED && this.subject.next(read()));
  }

  toggleFavourite(id: string): void {
    const { favourites, recent } = this.subject.value;
    const isOne = favourites.includes(id);
    this.keep({ favourites: isOne ? favourites.filter((other) => other !== id) : [...favourites, id], recent });
  }

  /** Notes that an item was opened or used. */
  touch(id: string): void {
    const { favourites, recent } = this.subject.value;
    this.keep({ favourites, recent: [id, ...recent.filter((other) => other !== id)].slice(0, MOST_RECENT) });
  }

  private keep(personal: Personal): void {
    this.subject.next(personal);
    localStorage.setItem(STORED, JSON.stringify(personal));
  }
}
