/** Builds the web application: the target of its workspace file, without the command line around it. */
import { Architect } from '@angular-devkit/architect';
import { WorkspaceNodeModulesArchitectHost } from '@angular-devkit/architect/node/index.js';
import { logging, schema, workspaces } from '@angular-devkit/core';
import { NodeJsSyncHost } from '@angular-devkit/core/node/index.js';
import { join } from 'node:path';

const folder = join(import.meta.dirname, '../web');
const host = workspaces.createWorkspaceHost(new NodeJsSyncHost());
const { workspace } = await workspaces.readWorkspace(join(folder, 'angular.json'), host);
const registry = new schema.CoreSchemaRegistry();
registry.addPostTransform(schema.transforms.addUndefinedDefaults);
const architect = new Architect(new WorkspaceNodeModulesArchitectHost(workspace, folder), registry);
const logger = new logging.Logger('build');
logger.subscribe(({ level, message }) => {
  (level === 'error' || level === 'fatal' ? process.stderr : process.stdout).write(`${message}\n`);
});
/** Not to be told what types do not fit is not enough: the builder asks all files for it in order to find which ones changed. */
const unchecked = process.env['NG_BUILD_TYPE_CHECK'] === '0' ? { tsConfig: 'tsconfig.quick.json' } : {};
const target = { project: 'web', target: 'build', configuration: 'production' };
const run = await architect.scheduleTarget(target, unchecked, { logger });
const { success } = await run.result;
await run.stop();
process.exit(success ? 0 : 1);
