import { Injectable, inject } from '@angular/core';
import { createShelf, type LibraryItem, type Shelf } from '@wexikine/core';
import { BehaviorSubject, map, type Observable } from 'rxjs';
import { ApiService, type ApiProblem } from '../api/api.service';

export interface LibraryState {
  readonly items: readonly LibraryItem[];
  readonly isLoading: boolean;
  readonly problem: string | null;
}

/** The library's items, loaded once and shared by every screen. */
@Injectable({ providedIn: 'root' })
export class LibraryService {
  private readonly api = inject(ApiService);
  private readonly subject = new BehaviorSubject<LibraryState>({ items: [], isLoading: true, problem: null });
  readonly state$ = this.subject.asObservable();
  readonly items$: Observable<readonly LibraryItem[]> = this.state$.pipe(map(({ items }) => items));
  readonly shelf$: Observable<Shelf> = this.items$.pipe(map(createShelf));

  constructor() {
    this.load();
  }

  load(): void {
    this.subject.next({ ...this.subject.value, isLoading: true, problem: null });
    this.api.library().subscribe({
      next: (items) => this.subject.next({ items, isLoading: false, problem: null }),
      error: ({ message }: ApiProblem) => this.subject.next({ items: [], isLoading: false, problem: message }),
    });
  }
}
