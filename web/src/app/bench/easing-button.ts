import { CdkTrapFocus } from '@angular/cdk/a11y';
import { CdkConnectedOverlay, CdkOverlayOrigin } from '@angular/cdk/overlay';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { easingWords, type Parameter, type PresetEasing, type Shelf } from '@wexikine/core';
import { EasingChip } from '../fields/easing/easing-chip';
import { EasingEditor } from '../fields/easing/easing-editor';

/** An easing of a preset: a small picture of it, which opens its editor. */
@Component({
  selector: 'wx-easing-button',
  changeDetection: ChangeDetectionStrategy.OnPush,
  imports: [CdkConnectedOverlay, CdkOverlayOrigin, CdkTrapFocus, EasingChip, EasingEditor],
  template: `
    <button
      #origin="cdkOverlayOrigin"
      #chip
      cdkOverlayOrigin
      class="easing"
      type="button"
      [attr.aria-expanded]="isOpen()"
      [attr.aria-label]="label() + ': ' + words()"
      [title]="words()"
      (click)="open()"
    >
      <wx-easing-chip [ease]="ease()" [shelf]="shelf()" />
    </button>
    <ng-template
      cdkConnectedOverlay
      [cdkConnectedOverlayOrigin]="origin"
      [cdkConnectedOverlayOpen]="isOpen()"
      [cdkConnectedOverlayHasBackdrop]="true"
      cdkConnectedOverlayBackdropClass="cdk-overlay-transparent-backdrop"
      [cdkConnectedOverlayOffsetY]="6"
      [cdkConnectedOverlayPush]="true"
      [cdkConnectedOverlayViewportMargin]="8"
      (backdropClick)="close()"
      (detach)="close()"
      (overlayKeydown)="$event.key === 'Escape' && close()"
    >
      <div
        class="popover easing-popover"
        role="dialog"
        [attr.aria-label]="label()"
        cdkTrapFocus
        cdkTrapFocusAutoCapture
      >
        <wx-easing-editor
          [ease]="ease()"
          [behind]="behind()"
          [shelf]="shelf()"
          [parameters]="parameters()"
          (changed)="changed.emit($event)"
        />
      </div>
    </ng-template>
  `,
  styles: `
    :host {
      display: block;
    }
    .easing {
      display: grid;
      place-items: center;
      width: 100%;
      height: 100%;
      border-radius: inherit;
    }
    .easing:hover,
    .easing[aria-expanded='true'] {
      background: var(--saffron-wash);
    }
    .easing-popover {
      max-width: 420px;
      max-height: min(640px, 92vh);
    }
  `,
})
export class EasingButton {
  readonly ease = input.required<PresetEasing>();
  /** What is published, drawn behind. */
  readonly behind = input.required<PresetEasing | null>();
  /** Of what it is, such as “Easing of opacity after In”. */
  readonly label = input.required<string>();
  readonly shelf = input.required<Shelf>();
  readonly parameters = input.required<readonly Parameter[]>();
  readonly changed = output<PresetEasing>();
  readonly opened = output();

  private readonly chip = viewChild.required<ElementRef<HTMLElement>>('chip');
  protected readonly isOpen = signal(false);
  protected readonly words = computed(() => easingWords(this.ease(), (id) => this.shelf().items.get(id)?.name ?? id));

  protected open(): void {
    this.isOpen.set(true);
    this.opened.emit();
  }

  protected close(): void {
    if (!this.isOpen()) return;
    this.isOpen.set(false);
    setTimeout(() => this.chip().nativeElement.focus());
  }
}
