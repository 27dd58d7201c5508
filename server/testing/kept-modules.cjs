/**
 * The test runner's module loader, which reads and compiles each module once in a process instead of once for each file
 * of tests; that was half the time of a small file of tests. What a module makes when it runs is still made anew in each
 * file of tests, in a world of its own. Where the runner changes inside, its own ways are taken again.
 */
const { statSync } = require('node:fs');
const { Script } = require('node:vm');
const Runtime = require('jest-runtime').default;

/** What the runner made of a file, and when that file was written. */
const texts = new Map();
/** A module's text and what was compiled of it; null where it cannot be bound to several worlds. */
const scripts = new Map();

/** Reads and transforms a file only where it was written since. The runner's own modules are taken as they are. */
function keepTexts(transformCache) {
  const anew = transformCache.transform.bind(transformCache);
  transformCache.transform = (filename, options) => {
    const key = `${options?.isInternalModule ? 'runner' : 'tests'}:${filename}`;
    const { mtimeMs } = statSync(filename);
    const kept = texts.get(key);
    if (kept?.mtimeMs !== mtimeMs) {
      const code = anew(filename, options);
      texts.set(key, { mtimeMs, code, transformed: transformCache.transforms.get(filename) });
      return code;
    }
    if (kept.transformed) {
      transformCache.transforms.set(filename, kept.transformed);
      if (kept.transformed.sourceMapPath) transformCache.sourceMaps.set(filename, kept.transformed.sourceMapPath);
    }
    return kept.code;
  };
}

/** A function of what the runner hands to a module; none where the module is not plain, or imports others as it runs. */
function scriptOf(code, filename, parameters) {
  if (/\bimport\s*\(/.test(code)) return null;
  const head = `(function(${parameters.join(',')}){`;
  try {
    return new Script(`${head}${code}\n})`, { filename, columnOffset: -head.length });
  } catch {
    return null;
  }
}

function keepScripts(executor) {
  const anew = executor.compile.bind(executor);
  executor.compile = (code, filename) => {
    const world = executor.environment.getVmContext();
    if (world === null) return null;
    let kept = scripts.get(filename);
    if (kept?.code !== code) {
      kept = { code, script: scriptOf(code, filename, executor.injectedModuleParameters) };
      scripts.set(filename, kept);
    }
    return kept.script ? kept.script.runInContext(world) : anew(code, filename);
  };
}

exports.__esModule = true;
exports.default = class extends Runtime {
  constructor(...given) {
    super(...given);
    const { executor } = this;
    if (typeof executor?.transformCache?.transform !== 'function' || typeof executor.compile !== 'function') return;
    keepTexts(executor.transformCache);
    keepScripts(executor);
  }
};
