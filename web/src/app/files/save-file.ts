/** Hands a file to the browser to be saved. */
export function saveFile(name: string, contents: Blob): void {
  const address = URL.createObjectURL(contents);
  const link = document.createElement('a');
  link.href = address;
  link.download = name;
  link.click();
  setTimeout(() => URL.revokeObjectURL(address), 10_000);
}

/** A name as a file name: letters, digits and hyphens. */
export function fileName(name: string, otherwise = 'scene'): string {
  return (
    name
      .toLowerCase()
      .replace(/[^\p{L}\p{N}]+/gu, '-')
      .replace(/^-|-$/g, '') || otherwise
  );
}

/** Bytes of a file as base64 text, as the API takes them. */
export async function base64Of(file: Blob): Promise<string> {
  const address = await new Promise<string>((done, failed) => {
    const reader = new FileReader();
    reader.onload = () => done(reader.result as string);
    reader.onerror = () => failed(reader.error ?? new Error('The file cannot be read.'));
    reader.readAsDataURL(file);
  });
  return address.slice(address.indexOf(',') + 1);
}
