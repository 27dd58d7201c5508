import { SaxesParser } from 'saxes';

/** An element of a file, with what is in it. */
export interface Element {
  /** Its name, without a prefix for SVG. */
  readonly name: string;
  readonly attributes: Readonly<Record<string, string>>;
  readonly children: (Element | string)[];
}

/** The root of a file, or why it cannot be read. */
export type XmlResult =
  { readonly ok: true; readonly root: Element } | { readonly ok: false; readonly message: string };

/** Elements and depth that a file may have: more is no drawing that anybody made. */
const MOST_ELEMENTS = 60_000;
const DEEPEST = 200;
const MOST_ENTITIES = 200;
const LONGEST_ENTITY = 1_000;

/** Plain names for text that some programs declare; those that stand for others are left out, so that none can grow. */
function declaredEntities(doctype: string): Record<string, string> {
  const found = [...doctype.matchAll(/<!ENTITY\s+([\w.-]+)\s+(?:"([^"&<]*)"|'([^'&<]*)')\s*>/g)];
  return Object.fromEntries(
    found
      .slice(0, MOST_ENTITIES)
      .map(([, name, one, two]) => [name, (one ?? two ?? '').slice(0, LONGEST_ENTITY)] as const),
  );
}

class Refused extends Error {}

/** Reads text as XML. External entities and style sheets are never looked at. */
export function readXml(text: string): XmlResult {
  const parser = new SaxesParser({ xmlns: false });
  const open: Element[] = [];
  const top: { root: Element | null } = { root: null };
  let count = 0;
  const add = (piece: string): void => {
    const parent = open.at(-1);
    if (parent && piece !== '') parent.children.push(piece);
  };
  parser.on('doctype', (doctype) => Object.assign(parser.ENTITIES, declaredEntities(doctype)));
  parser.on('error', (error) => {
    throw new Refused(error.message);
  });
  parser.on('opentag', ({ name, attributes }) => {
    if (++count > MOST_ELEMENTS) throw new Refused(`it has more than ${MOST_ELEMENTS} elements`);
    if (open.length >= DEEPEST) throw new Refused(`its elements are more than ${DEEPEST} deep in each other`);
    const element = { name: name.replace(/^svg:/, ''), attributes: attributes as Record<string, string>, children: [] };
    open.at(-1)?.children.push(element);
    top.root ??= element;
    open.push(element);
  });
  parser.on('text', add);
  parser.on('cdata', add);
  parser.on('closetag', () => void open.pop());
  try {
    parser.write(text.replace(/^\ufeff/, '')).close();
  } catch (error) {
    if (!(error instanceof Refused)) throw error;
    return { ok: false, message: `it is not a whole SVG file: ${error.message.slice(0, 200)}` };
  }
  const { root } = top;
  return root ? { ok: true, root } : { ok: false, message: 'it is not a whole SVG file' };
}

/** The text in an element, without that of elements in it. */
export function textOf({ children }: Element): string {
  return children.filter((child) => typeof child === 'string').join('');
}

/** The elements in an element. */
export function elementsIn({ children }: Element): Element[] {
  return children.filter((child) => typeof child !== 'string');
}
