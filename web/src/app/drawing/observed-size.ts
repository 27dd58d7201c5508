import { DestroyRef, ElementRef, inject, signal, type Signal } from '@angular/core';
import type { CanvasSize } from './canvas';

type Hear = (size: CanvasSize) => void;

const hearers = new WeakMap<Element, Hear>();
let observer: ResizeObserver | null = null;

/** One observer for all elements: the browser then tells of them together, after it has laid out the page. */
function sharedObserver(): ResizeObserver {
  observer ??= new ResizeObserver((entries) => {
    for (const { target, contentRect } of entries) {
      hearers.get(target)?.({ width: contentRect.width, height: contentRect.height });
    }
  });
  return observer;
}

/** The size of the component's own element as it changes; nothing until it is first laid out. Call while constructing. */
export function observedSize(): Signal<CanvasSize> {
  const element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const size = signal<CanvasSize>({ width: 0, height: 0 });
  hearers.set(element, (next) => size.set(next));
  sharedObserver().observe(element);
  inject(DestroyRef).onDestroy(() => sharedObserver().unobserve(element));
  return size.asReadonly();
}
