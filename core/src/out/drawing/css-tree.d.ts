/** Parts of css-tree that do without its tables of all properties. */
declare module 'css-tree/generator' {
  export { generate as default } from 'css-tree';
}
declare module 'css-tree/parser' {
  export { parse as default } from 'css-tree';
}
declare module 'css-tree/walker' {
  export { walk as default } from 'css-tree';
}
