export { readTable, writeTable, type Table, type TableResult } from './table';
export { matchTable, nameColumn, type MatchBy, type Matched } from './match';
