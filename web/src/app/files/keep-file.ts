import { endingOf, fileAddress, fileType, type FileFacts } from '@wexikine/core';
import { ask } from './ask';

/** The hash of bytes as files are named by: SHA-256 in hexadecimal digits. */
async function hashOf(bytes: ArrayBuffer): Promise<string> {
  const hash = new Uint8Array(await crypto.subtle.digest('SHA-256', bytes));
  return Array.from(hash, (byte) => byte.toString(16).padStart(2, '0')).join('');
}

/** Keeps a file on the server, unless it is kept already; a font is sent again, as more may be known of it than was then. Gives its address; throws with the server's sentence. */
export async function keepFile(blob: Blob, title: string, facts: FileFacts): Promise<string> {
  const bytes = await blob.arrayBuffer();
  const ending = endingOf(new Uint8Array(bytes));
  if (ending === null) throw new Error('it is of no kind that can be kept');
  const name = `${await hashOf(bytes)}.${ending}`;
  const address = `/api/${fileAddress(name)}`;
  if (fileType(name).kind !== 'font' && (await ask(address, { method: 'HEAD' })).ok) return fileAddress(name);
  const query = new URLSearchParams({ title: title.slice(0, 200), facts: JSON.stringify(facts) });
  const answer = await ask(`${address}?${query}`, {
    method: 'PUT',
    headers: { 'Content-Type': fileType(name).media },
    body: bytes,
  });
  if (answer.ok) return fileAddress(name);
  const said = (await answer.json().catch(() => null)) as { message?: string } | null;
  throw new Error(said?.message ?? 'the server did not take it');
}
