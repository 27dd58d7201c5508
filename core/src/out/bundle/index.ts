export { embedFiles, filesOfScene, readBundle, writeBundle, type BundleResult } from './bundle';
