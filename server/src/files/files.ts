import { endingOf, fileAddress, fileType, type KeptFile, type Layer } from '@wexikine/core';
import { createHash } from 'node:crypto';
import type { Queries } from '../database';
import { invalid, RequestProblem } from '../http';
import { dropFile, manyFiles, maybeSize, putFile } from './files-table';

const MOST_TITLE = 200;

function hashOf(body: Uint8Array): string {
  return createHash('sha256').update(body).digest('hex');
}

/** Keeps what was sent under its name; refused where the content is not what the name says. */
export async function keepFile(
  queries: Queries,
  name: string,
  { title, facts }: Pick<KeptFile, 'title' | 'facts'>,
  body: Uint8Array,
  when: string,
): Promise<void> {
  if (body.length === 0) throw invalid('The file is empty. Choose another one.');
  const ending = endingOf(body);
  if (ending === null || !name.endsWith(`.${ending}`))
    throw invalid(`The file is not ${fileType(name).label}, as its name says. Choose one that is whole.`);
  if (!name.startsWith(hashOf(body))) throw invalid('The file did not arrive as it was sent. Send it again.');
  await putFile(queries, { name, title: title.slice(0, MOST_TITLE), facts, body }, when);
}

/** Takes a file away; refused while layers use it. */
export async function removeFile(queries: Queries, name: string): Promise<void> {
  if ((await dropFile(queries, name)) || (await maybeSize(queries, name)) === null) return;
  const uses = (await manyFiles(queries)).find((file) => file.name === name)?.uses ?? [];
  throw new RequestProblem({
    code: 'conflict',
    message: `The file is used in ${uses.map(({ sceneName }) => `“${sceneName}”`).join(', ')}, which may be a deleted scene that can still be brought back. Replace it there first.`,
  });
}

/** A layer whose picture is taken out of it into a file; null where it holds none, or one that cannot be read. */
export async function withFile(queries: Queries, layer: Layer): Promise<Layer | null> {
  const { source } = layer;
  if (source.type !== 'picture') return null;
  const [, data] = /^data:[^,]*;base64,(.*)$/s.exec(source.href) ?? [];
  if (data === undefined) return null;
  const body = new Uint8Array(Buffer.from(data, 'base64'));
  const ending = endingOf(body);
  if (ending === null) return null;
  const name = `${hashOf(body)}.${ending}`;
  await putFile(queries, { name, title: layer.name, facts: {}, body }, new Date().toISOString());
  return { ...layer, source: { ...source, href: fileAddress(name) } };
}
