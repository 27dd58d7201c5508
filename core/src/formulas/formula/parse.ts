import type { SyntaxNode } from '@lezer/common';
import type { BinaryOperator, Formula, Let, Node, Span } from './ast';
import { parser } from './grammar/parser.generated';
import type { FormulaProblem } from './problem';

/** Longest formula that is read, in characters. */
export const MOST_CHARACTERS = 2000;

/** A parsed formula, or what is wrong with its writing. */
export type ParseResult =
  | { readonly ok: true; readonly formula: Formula }
  | { readonly ok: false; readonly problems: readonly FormulaProblem[] };

const OPERATORS: Readonly<Record<string, BinaryOperator>> = {
  '*': '×',
  '·': '×',
  '/': '÷',
  '−': '-',
  '<=': '≤',
  '>=': '≥',
  '!=': '≠',
};

const OPERATOR_NODES = ['Plus', 'Minus', 'Times', 'Power', 'Compare', 'And', 'Or'];

function spanOf(node: SyntaxNode): Span {
  return { from: node.from, to: node.to };
}

function expressionChildren(node: SyntaxNode): SyntaxNode[] {
  const names = ['Quantity', 'Name', 'Parameter', 'Group', 'Call', 'Unary', 'Binary', 'Conditional'];
  return children(node).filter((child) => names.includes(child.name));
}

function children(node: SyntaxNode): SyntaxNode[] {
  const list: SyntaxNode[] = [];
  for (let child = node.firstChild; child; child = child.nextSibling) list.push(child);
  return list;
}

function quantity(text: string, span: Span): Node {
  const [, number, unit] = /^([\d.]+)(.*)$/.exec(text) as unknown as [string, string, string];
  return { type: 'quantity', value: Number(number), unit, span };
}

function binary(node: SyntaxNode, source: string): Node {
  const [left, right] = expressionChildren(node);
  const sign = children(node).find((child) => OPERATOR_NODES.includes(child.name)) as SyntaxNode;
  const text = source.slice(sign.from, sign.to);
  const operator = OPERATORS[text] ?? (text as BinaryOperator);
  return { type: 'binary', operator, left: build(left, source), right: build(right, source), span: spanOf(node) };
}

function call(node: SyntaxNode, source: string): Node {
  const callee = node.getChild('Callee') as SyntaxNode;
  const args = expressionChildren(node).map((child) => build(child, source));
  const name = source.slice(callee.from, callee.to);
  return { type: 'call', name, nameSpan: spanOf(callee), args, span: spanOf(node) };
}

function build(node: SyntaxNode, source: string): Node {
  const text = source.slice(node.from, node.to);
  const span = spanOf(node);
  const parts = (): Node[] => expressionChildren(node).map((child) => build(child, source));
  switch (node.name) {
    case 'Quantity':
      return quantity(text, span);
    case 'Name':
      return { type: 'name', name: text, span };
    case 'Parameter':
      return { type: 'parameter', name: text.slice(1), span };
    case 'Group':
      return parts()[0];
    case 'Call':
      return call(node, source);
    case 'Unary':
      return { type: 'unary', operator: node.getChild('Not') ? 'not' : '-', operand: parts()[0], span };
    case 'Binary':
      return binary(node, source);
    case 'Conditional': {
      const [condition, then, otherwise] = parts();
      return { type: 'if', condition, then, otherwise, span };
    }
    default:
      throw new Error(`The grammar has a node ${node.name} that the reader does not know.`);
  }
}

function firstError(top: SyntaxNode, source: string): FormulaProblem | null {
  let found: SyntaxNode | null = null;
  top.cursor().iterate((node) => {
    if (node.type.isError) found ??= node.node;
    return found === null;
  });
  if (found === null) return null;
  const { from, to } = found as SyntaxNode;
  const rest = /^\s*(\S{1,12})/.exec(source.slice(from));
  const end = to > from ? to : Math.min(source.length, from + 1);
  const text = to > from ? source.slice(from, to) : (rest?.[1] ?? '');
  return { code: 'syntax', found: text, span: { from: Math.min(from, source.length), to: end } };
}

function letOf(node: SyntaxNode, source: string): Let {
  const name = node.getChild('LetName') as SyntaxNode;
  return {
    name: source.slice(name.from, name.to),
    span: spanOf(name),
    value: build(expressionChildren(node)[0], source),
  };
}

/** Reads a formula. Fails with problems that carry their place; it never throws, whatever the text. */
export function parseFormula(source: string): ParseResult {
  const span = { from: 0, to: source.length };
  if (source.length > MOST_CHARACTERS) {
    return { ok: false, problems: [{ code: 'too-long', most: MOST_CHARACTERS, span }] };
  }
  if (source.replace(/#[^\n]*/g, '').trim() === '') return { ok: false, problems: [{ code: 'empty', span }] };
  const top = parser.parse(source).topNode;
  const error = firstError(top, source);
  if (error) return { ok: false, problems: [error] };
  const lets = top.getChildren('Let').map((node) => letOf(node, source));
  const [value] = expressionChildren(top);
  return { ok: true, formula: { source, lets, value: build(value, source) } };
}
