import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { RouterLink } from '@angular/router';
import { createShelf, referencesOf, type LibraryItem } from '@wexikine/core';
import { LibraryService } from '../library/library.service';
import { effectsOf } from './effects';

/** What takes from an item, and what of it would change if the item were published as it is now. */
@Component({
  selector: 'wx-effects-list',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [RouterLink],
  template: `
    <h2>If it is published as it is now</h2>
    @if (effects().length > 0) {
      <ul>
        @for (effect of effects(); track effect.id) {
          <li>
            <a [routerLink]="['/library', effect.id]">{{ effect.name }}</a>
            <span class="mono">{{ effect.words }}</span>
          </li>
        }
      </ul>
    } @else {
      <p class="quiet-text">Nothing that takes from it changes.</p>
    }
    @if (others().length > 0) {
      <h2>{{ effects().length > 0 ? 'Takes from it, and stays' : 'Takes from it' }}</h2>
      <ul>
        @for (other of others(); track other.id) {
          <li>
            <a [routerLink]="['/library', other.id]">{{ other.name }}</a>
          </li>
        }
      </ul>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 4px;
      padding: 12px 14px 24px;
    }
    h2 {
      font: 600 13px/1.5 var(--font-text);
      color: var(--ink-soft);
    }
    h2:not(:first-child) {
      margin-top: 12px;
    }
    ul {
      list-style: none;
      margin: 0;
      padding: 0;
    }
    li {
      display: flex;
      justify-content: space-between;
      gap: 12px;
      padding: 1px 0;
      font-size: 13px;
    }
  `,
})
export class EffectsList {
  readonly item = input.required<LibraryItem>();
  private readonly shelf = toSignal(inject(LibraryService).shelf$, { initialValue: createShelf([]) });
  protected readonly effects = computed(() => effectsOf(this.item(), this.shelf()));
  protected readonly others = computed(() => {
    const changed = new Set(this.effects().map(({ id }) => id));
    return [...this.shelf().items.values()].filter(
      (item) =>
        !changed.has(item.id) && referencesOf(item).some(({ id, use }) => id === this.item().id && use !== 'matches'),
    );
  });
}
