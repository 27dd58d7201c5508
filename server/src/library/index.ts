export { libraryRoutes } from './routes';
export { countItems } from './items-table';
export { writeRecords } from './import';
