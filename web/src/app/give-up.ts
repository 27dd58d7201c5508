import { DestroyRef, inject } from '@angular/core';

/**
 * Escape, pressed while something is dragged, gives the drag up: `giveUp` puts everything as it was before. Called where
 * a component is made. Nothing else hears that key press.
 */
export function giveUpOnEscape(isDragging: () => boolean, giveUp: () => void): void {
  const listen = (event: KeyboardEvent): void => {
    if (event.key !== 'Escape' || !isDragging()) return;
    event.preventDefault();
    event.stopImmediatePropagation();
    giveUp();
  };
  // While capturing: what has the focus may close, or pick nothing, at Escape.
  document.addEventListener('keydown', listen, { capture: true });
  inject(DestroyRef).onDestroy(() => document.removeEventListener('keydown', listen, { capture: true }));
}
