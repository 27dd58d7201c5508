import { spawn, spawnSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs';
import { dirname, join, resolve } from 'node:path';

export const root = resolve(import.meta.dirname, '..');

/** Runs a command in the project folder with its output shown; exits with a sentence when it fails. */
export function run(command, args, options = {}) {
  const result = spawnSync(command, args, { cwd: root, stdio: 'inherit', ...options });
  if (result.status !== 0) {
    process.stderr.write(`“${[command, ...args].join(' ')}” failed; see above.\n`);
    process.exit(result.status ?? 1);
  }
  return result;
}

/** Runs a command beside what else goes on, with its output shown; throws a sentence when it fails. */
export function runBeside(command, args, env = {}) {
  return new Promise((done, failed) => {
    const child = spawn(command, args, { cwd: root, stdio: 'inherit', env: { ...process.env, ...env } });
    child.on('error', failed);
    child.on('close', (status) =>
      status === 0 ? done() : failed(new Error(`“${[command, ...args].join(' ')}” failed; see above.`)),
    );
  });
}

/**
 * Installs the packages of the lock file where they are missing or older than it. To start the application, those that only
 * tests and checks need are left out where they were not there before, which takes a third of the time.
 */
export function installIfNeeded({ forTests }) {
  const installed = join(root, 'node_modules/.package-lock.json');
  const lock = join(root, 'package-lock.json');
  const hasAll = existsSync(join(root, 'node_modules/jest'));
  const isNew = existsSync(installed) && statSync(installed).mtimeMs >= statSync(lock).mtimeMs;
  if (isNew && (hasAll || !forTests)) return;
  const isWhole = forTests || hasAll;
  process.stdout.write(`Installing packages (once, ${isWhole ? 'about a minute' : 'half a minute'})…\n`);
  run('npm', ['ci', ...(isWhole ? [] : ['--omit=dev']), '--no-audit', '--no-fund', '--loglevel=error']);
}

/**
 * Installs the browser that end-to-end tests and the bench drive, where it is missing, beside what else goes on. Resolves when
 * it is there, or could not be installed, which is said.
 */
export function findBrowser() {
  if (existsSync('/usr/bin/chromium')) return Promise.resolve();
  process.stdout.write('\n== Installing the browser (package chromium)\n');
  const command = 'apt-get update; apt-get install -y --no-install-recommends chromium';
  return new Promise((done) => {
    spawn('sh', ['-c', command], { stdio: 'ignore' }).on('close', (status) => {
      if (status !== 0)
        process.stderr.write('Chromium could not be installed. Install the package chromium and try again.\n');
      done();
    });
  });
}

function filesUnder(path) {
  const full = join(root, path);
  if (!existsSync(full)) return [];
  if (statSync(full).isFile()) return [path];
  return readdirSync(full, { withFileTypes: true })
    .filter(({ name }) => !['node_modules', 'dist', '.angular'].includes(name))
    .flatMap(({ name }) => filesUnder(join(path, name)));
}

/** Fingerprint of source files by path, size and time of change; reading their contents would take longer. */
function fingerprint(paths) {
  const hash = createHash('sha256');
  for (const path of paths.flatMap(filesUnder).sort()) {
    const { size, mtimeMs } = statSync(join(root, path));
    hash.update(`${path} ${size} ${mtimeMs}\n`);
  }
  return hash.digest('hex');
}

/**
 * Runs a build step only when one of its sources changed since it last ran. What was built without its types being checked
 * is built again where they are to be.
 */
export async function buildIfChanged(name, sources, output, work, checksTypes = false) {
  const stamp = join(root, output, '.stamp');
  const now = fingerprint([...sources, 'package-lock.json']);
  const checked = `${now} with types checked`;
  const before = existsSync(stamp) ? readFileSync(stamp, 'utf8') : null;
  if (before === checked || (before === now && !checksTypes)) return;
  process.stdout.write(`Building ${name}…\n`);
  await work();
  mkdirSync(dirname(stamp), { recursive: true });
  writeFileSync(stamp, checksTypes ? checked : now);
}
