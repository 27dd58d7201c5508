import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { MatMenuModule } from '@angular/material/menu';
import { MOST_NAME, PersonService } from './api/person';
import { Icon } from './icons/icon';

/** Under which name this browser's changes are recorded, and the field to change it. */
@Component({
  selector: 'wx-person-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [Icon, MatMenuModule],
  template: `
    <button
      class="icon-button"
      type="button"
      [attr.aria-label]="'You are ' + name() + '; change the name'"
      [title]="'You are ' + name()"
      [matMenuTriggerFor]="menu"
    >
      @if (initials(); as letters) {
        <span class="initials">{{ letters }}</span>
      } @else {
        <wx-icon name="person" />
      }
    </button>
    <mat-menu #menu="matMenu">
      <div class="field" role="none" (click)="$event.stopPropagation()" (keydown)="key($event)">
        <label class="field-label"
          >Changes are recorded under
          <input
            class="text-field"
            [attr.maxlength]="most"
            [value]="name() === 'You' ? '' : name()"
            placeholder="your name"
            (change)="set($event)"
          />
        </label>
      </div>
    </mat-menu>
  `,
  styles: `
    .field {
      padding: 8px 14px 10px;
    }
    .initials {
      display: grid;
      place-items: center;
      width: 24px;
      height: 24px;
      border-radius: 12px;
      background: var(--pine-wash);
      color: var(--pine-deep);
      font: 600 11px var(--font-text);
    }
  `,
})
export class PersonButton {
  private readonly person = inject(PersonService);
  protected readonly most = MOST_NAME;
  protected readonly name = toSignal(this.person.name$, { requireSync: true });
  protected readonly initials = computed(() => {
    const name = this.name();
    if (name === 'You') return null;
    const words = name.split(/\s+/).filter((word) => word !== '');
    return words
      .slice(0, 2)
      .map((word) => word.charAt(0).toUpperCase())
      .join('');
  });

  protected set(event: Event): void {
    this.person.set((event.target as HTMLInputElement).value);
  }

  /** Keys belong to the field, not to the menu around it; only Escape closes. */
  protected key(event: KeyboardEvent): void {
    if (event.key === 'Enter') this.set(event);
    if (event.key !== 'Escape') event.stopPropagation();
  }
}
