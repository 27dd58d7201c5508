export { fileRoutes } from './routes';
export { withFile } from './files';
export { writeUses } from './files-table';
