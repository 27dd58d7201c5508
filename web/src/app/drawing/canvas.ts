/** A size on screen, in CSS pixels. */
export interface CanvasSize {
  readonly width: number;
  readonly height: number;
}

/**
 * Sizes a canvas to its place in device pixels and gives its context cleared; null while it has no size. Where many
 * are drawn at once, `size` comes from an observer, since asking each of them would lay out the page again and again.
 */
export function prepareCanvas(
  canvas: HTMLCanvasElement,
  size: CanvasSize = { width: canvas.clientWidth, height: canvas.clientHeight },
): CanvasRenderingContext2D | null {
  const ratio = window.devicePixelRatio || 1;
  const width = Math.round(size.width * ratio);
  const height = Math.round(size.height * ratio);
  if (width === 0 || height === 0) return null;
  if (canvas.width !== width || canvas.height !== height) {
    canvas.width = width;
    canvas.height = height;
  }
  const context = canvas.getContext('2d');
  context?.setTransform(1, 0, 0, 1, 0, 0);
  context?.clearRect(0, 0, width, height);
  return context;
}
