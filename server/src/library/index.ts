export { libraryRoutes } from './routes';
export { countItems, insertItem, manyItems } from './library-table';
