// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- every workspace that reads drawings needs it
/// <reference path="./css-tree.d.ts" />
import type { CssNode, Selector } from 'css-tree';
import generate from 'css-tree/generator';
import parse from 'css-tree/parser';
import walk from 'css-tree/walker';
import type { Element } from './xml';

/** What one rule of a style sheet asks for. */
export interface CssRule {
  readonly name: string | null;
  readonly id: string | null;
  readonly classes: readonly string[];
  /** The higher one wins; of equal ones the later. Source: Selectors 4, section 17. */
  readonly weight: number;
  readonly declarations: Readonly<Record<string, string>>;
}

/** One element by name, id and classes; null for selectors that look further. */
function simple(selector: Selector): Omit<CssRule, 'declarations'> | null {
  let [name, id]: (string | null)[] = [null, null];
  const classes: string[] = [];
  for (const node of selector.children) {
    if (node.type === 'TypeSelector') name = node.name === '*' ? null : node.name;
    else if (node.type === 'IdSelector') id = node.name;
    else if (node.type === 'ClassSelector') classes.push(node.name);
    else return null;
  }
  return { name, id, classes, weight: (id === null ? 0 : 10_000) + classes.length * 100 + (name === null ? 0 : 1) };
}

/** Declarations as text by property. */
export function readDeclarations(text: string): Record<string, string> {
  const found: Record<string, string> = {};
  const tree: CssNode = parse(text, { context: 'declarationList', parseValue: false, onParseError: () => undefined });
  walk(tree, (node) => {
    if (node.type === 'Declaration') found[node.property.toLowerCase()] = generate(node.value).trim();
  });
  return found;
}

/** Rules of a style sheet that name elements by themselves, in the order in which they win. */
export function readRules(text: string): CssRule[] {
  const rules: CssRule[] = [];
  const tree = parse(text, { parseValue: false, onParseError: () => undefined });
  walk(tree, function (node) {
    if (node.type !== 'Rule' || this.atrule !== null || node.prelude.type !== 'SelectorList') return;
    const declarations = readDeclarations(generate(node.block).slice(1, -1));
    for (const selector of node.prelude.children) {
      const rule = selector.type === 'Selector' ? simple(selector) : null;
      if (rule) rules.push({ ...rule, declarations });
    }
  });
  return rules
    .map((rule, place) => ({ rule, place }))
    .sort((a, b) => a.rule.weight - b.rule.weight || a.place - b.place)
    .map(({ rule }) => rule);
}

/** Declarations of the rules of a style sheet that bring fonts. */
export function readFaceRules(text: string): Record<string, string>[] {
  const found: Record<string, string>[] = [];
  const tree = parse(text, { parseValue: false, onParseError: () => undefined });
  walk(tree, (node) => {
    if (node.type !== 'Atrule' || node.name.toLowerCase() !== 'font-face' || !node.block) return;
    found.push(readDeclarations(generate(node.block).slice(1, -1)));
  });
  return found;
}

/** Whether a rule is about an element. */
export function isAbout(rule: CssRule, { name, attributes }: Element): boolean {
  if (rule.name !== null && rule.name !== name) return false;
  if (rule.id !== null && rule.id !== attributes['id']) return false;
  if (rule.classes.length === 0) return true;
  const own = (attributes['class'] ?? '').split(/\s+/);
  return rule.classes.every((one) => own.includes(one));
}
