import { afterNextRender, Directive, ElementRef, inject } from '@angular/core';

/** What can be typed in, chosen or pressed, in the order of the page. */
const CONTROLS = 'input:not([disabled]), select:not([disabled]), textarea, button:not([disabled])';

/** The control at which an editor begins: a field that asks for it, the choice that stands, or the first one. */
export function startOf(editor: ParentNode): HTMLElement | null {
  const asked = editor.querySelector<HTMLElement>('[cdkFocusInitial]');
  const controls = [...editor.querySelectorAll<HTMLElement>(CONTROLS)].filter((one) => !one.closest('wx-field-help'));
  const [first] = controls;
  // Of choices the one that stands: with the first, an arrow key would go on from there and change it.
  const chosen = first?.matches('[type=radio]') ? controls.find((one) => one.matches(':checked')) : undefined;
  return asked ?? chosen ?? first ?? null;
}

/** Gives the focus to where an editor of the sentence begins, and brings the item that stands into view. */
@Directive({ selector: '[wxEditorStart]' })
export class EditorStart {
  constructor() {
    const editor = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
    afterNextRender(() => {
      startOf(editor)?.focus({ preventScroll: true });
      editor.querySelector('.list .choice.on')?.scrollIntoView({ block: 'center' });
    });
  }
}
