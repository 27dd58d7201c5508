import type { Page } from '@playwright/test';
import { buildSync } from 'esbuild';

const ENTRY = `
  import { BufferTarget, CanvasSource, Output, WebMOutputFormat } from 'mediabunny';
  globalThis.makeClip = async ({ frames, rate, width, height }) => {
    const canvas = new OffscreenCanvas(width, height);
    const context = canvas.getContext('2d');
    const output = new Output({ format: new WebMOutputFormat(), target: new BufferTarget() });
    const source = new CanvasSource(canvas, { codec: 'vp8', bitrate: 2_000_000, keyFrameInterval: 1 });
    output.addVideoTrack(source, { frameRate: rate });
    await output.start();
    for (let i = 0; i < frames; i++) {
      const grey = 16 + (i % 12) * 20;
      context.fillStyle = 'rgb(' + grey + ',' + grey + ',' + grey + ')';
      context.fillRect(0, 0, width, height);
      await source.add(i / rate, 1 / rate);
    }
    await output.finalize();
    return new File([output.target.buffer], 'Waves.webm', { type: 'video/webm' });
  };
`;

const bundle = buildSync({
  stdin: { contents: ENTRY, resolveDir: import.meta.dirname, loader: 'js' },
  bundle: true,
  write: false,
  format: 'iife',
}).outputFiles[0].text;

/** What each frame of a made clip looks like: one grey, twelve of them by turns. */
export function greyOfFrame(frame: number): number {
  return 16 + (frame % 12) * 20;
}

/** Drops a moving picture on the preview: so many frames, each of one grey. */
export async function dropClip(
  page: Page,
  made: { readonly frames: number; readonly rate: number; readonly width: number; readonly height: number },
): Promise<void> {
  await page.evaluate(bundle);
  await page.locator('wx-preview > canvas').evaluate(async (target, asked) => {
    const make = (globalThis as unknown as { makeClip: (given: typeof asked) => Promise<File> }).makeClip;
    const data = new DataTransfer();
    data.items.add(await make(asked));
    const { left, top, width, height } = target.getBoundingClientRect();
    const [clientX, clientY] = [left + width / 2, top + height / 2];
    const event = { bubbles: true, cancelable: true, clientX, clientY, dataTransfer: data };
    target.dispatchEvent(new DragEvent('dragover', event));
    target.dispatchEvent(new DragEvent('drop', event));
  }, made);
}
