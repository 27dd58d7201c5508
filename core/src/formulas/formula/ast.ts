/** A stretch of a formula's source, in UTF-16 units: from ≤ position < to. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** What stands between two values of a formula. */
export type BinaryOperator = '+' | '-' | '×' | '÷' | '^' | 'mod' | '<' | '>' | '≤' | '≥' | '=' | '≠' | 'and' | 'or';

/** A part of a parsed formula, with its place in the source. */
export type Node =
  | { readonly type: 'quantity'; readonly value: number; readonly unit: string; readonly span: Span }
  | { readonly type: 'name'; readonly name: string; readonly span: Span }
  | { readonly type: 'parameter'; readonly name: string; readonly span: Span }
  | { readonly type: 'unary'; readonly operator: '-' | 'not'; readonly operand: Node; readonly span: Span }
  | {
      readonly type: 'binary';
      readonly operator: BinaryOperator;
      readonly left: Node;
      readonly right: Node;
      readonly span: Span;
    }
  | {
      readonly type: 'if';
      readonly condition: Node;
      readonly then: Node;
      readonly otherwise: Node;
      readonly span: Span;
    }
  | {
      readonly type: 'call';
      readonly name: string;
      readonly nameSpan: Span;
      readonly args: readonly Node[];
      readonly span: Span;
    };

/** A `let` line: a name and its value. */
export interface Let {
  readonly name: string;
  readonly span: Span;
  readonly value: Node;
}

/** A parsed formula: its `let` lines and the value on its last line. */
export interface Formula {
  readonly source: string;
  readonly lets: readonly Let[];
  readonly value: Node;
}
