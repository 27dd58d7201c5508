import { DestroyRef, ElementRef, inject, signal, type Signal } from '@angular/core';

/** How far outside what is seen something already counts, so that slow scrolling meets what is drawn. */
const AHEAD = '500px';

const hearers = new WeakMap<Element, () => void>();
let observer: IntersectionObserver | null = null;

/** One observer for all elements; where the browser knows margins of scrolled boxes, also those count. */
function sharedObserver(): IntersectionObserver {
  const margins: IntersectionObserverInit & { scrollMargin: string } = { rootMargin: AHEAD, scrollMargin: AHEAD };
  observer ??= new IntersectionObserver((entries) => {
    for (const { target, isIntersecting } of entries) if (isIntersecting) hearers.get(target)?.();
  }, margins);
  return observer;
}

/** Whether the component's own element has come into view, or close to it, once. Call while constructing. */
export function observedView(): Signal<boolean> {
  const element = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  const hasCome = signal(false);
  const leave = (): void => sharedObserver().unobserve(element);
  hearers.set(element, () => {
    hasCome.set(true);
    leave();
  });
  sharedObserver().observe(element);
  inject(DestroyRef).onDestroy(leave);
  return hasCome.asReadonly();
}
