import type { Page } from '@playwright/test';

/** Drops files on the preview: pictures made here by size and colour, and others by their text. */
export async function drop(
  page: Page,
  pictures: readonly { name: string; width: number; height: number; type: string }[],
  texts: readonly { name: string; text: string }[],
): Promise<void> {
  await page.locator('wx-preview > canvas').evaluate(
    async (target, given) => {
      const files: File[] = [];
      for (const [i, { name, width, height, type }] of given.pictures.entries()) {
        const canvas = new OffscreenCanvas(width, height);
        const context = canvas.getContext('2d');
        if (!context) throw new Error('no canvas');
        context.fillStyle = `hsl(${i * 40} 60% 50%)`;
        context.fillRect(0, 0, width, height);
        files.push(new File([await canvas.convertToBlob({ type })], name, { type }));
      }
      for (const { name, text } of given.texts) files.push(new File([text], name));
      const data = new DataTransfer();
      for (const file of files) data.items.add(file);
      const { left, top, width, height } = target.getBoundingClientRect();
      const [clientX, clientY] = [left + width / 2, top + height / 2];
      const made = { bubbles: true, cancelable: true, clientX, clientY, dataTransfer: data };
      target.dispatchEvent(new DragEvent('dragover', made));
      target.dispatchEvent(new DragEvent('drop', made));
    },
    { pictures, texts },
  );
}
