// npm test: installs what is missing, then types, lint, import rules, unit, API and interface tests.
// The last line says how many checks and tests passed and failed.
import { spawnSync } from 'node:child_process';
import { existsSync, mkdirSync, readFileSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { buildPage, checkNode, giveUp, install, ROOT } from './ready.mjs';

checkNode();
install();
installChromium();
buildPage();

const results = join(ROOT, 'node_modules', '.cache', 'marvet', 'results');
rmSync(results, { recursive: true, force: true });
mkdirSync(results, { recursive: true });
const counts = { passed: 0, failed: 0 };
/** What failed, told once more at the end: long before it much else was printed. */
const failures = [];

/** Runs a tool of the project; its output is shown as it comes. */
function tool(name, args, environment = {}) {
  console.log(`\n== ${name} ${args.join(' ')}`);
  const program = join(ROOT, 'node_modules', '.bin', process.platform === 'win32' ? `${name}.cmd` : name);
  return spawnSync(program, args, { cwd: ROOT, stdio: 'inherit', env: { ...process.env, ...environment } }).status === 0;
}

function check(name, args) {
  const passed = tool(name, args);
  counts[passed ? 'passed' : 'failed']++;
  if (!passed) failures.push(`${name} ${args.join(' ')}`);
}

/** Debian's Chromium, from apt where this may be done. */
function installChromium() {
  if (existsSync('/usr/bin/chromium')) return;
  if (process.getuid?.() !== 0 || !existsSync('/usr/bin/apt-get'))
    giveUp('The interface tests need Chromium at /usr/bin/chromium. Install the package "chromium", then run npm test again.');
  console.error('Installing Chromium (apt-get).');
  const options = { stdio: ['ignore', 'ignore', 'inherit'], env: { ...process.env, DEBIAN_FRONTEND: 'noninteractive' } };
  spawnSync('apt-get', ['update', '-q'], options);
  if (spawnSync('apt-get', ['install', '-y', '-q', '--no-install-recommends', 'chromium'], options).status !== 0)
    giveUp('Chromium cannot be installed with apt-get. Install it by hand, then run npm test again.');
}

/** Adds the counts of a run whose results are in a JSON file; a run without results counts as one failure. */
function count(file, read, ran) {
  const path = join(results, file);
  if (!existsSync(path)) {
    counts.failed++;
    failures.push(`${file} was not written`);
    return;
  }
  const { passed, failed, names } = read(JSON.parse(readFileSync(path, 'utf8')));
  failures.push(...names);
  counts.passed += passed;
  counts.failed += failed;
  // A run can fail without a failing test: a file that does not load, an error outside of tests.
  if (!ran && failed === 0) {
    counts.failed++;
    failures.push(`${file}: the run failed outside of its tests`);
  }
}

for (const folder of ['core', 'server', 'web', join('web', 'offline')]) check('tsc', ['-p', folder]);
check('biome', ['check', '.']);
check('depcruise', ['--config', '.dependency-cruiser.cjs', 'core', 'server', 'web', 'cli', 'demo']);
const unit = tool('vitest', ['run', '--reporter=dot', '--reporter=json', `--outputFile.json=${join(results, 'unit.json')}`]);
const failedIn = (results) => results.flatMap(({ assertionResults }) => assertionResults.filter(({ status }) => status === 'failed').map(({ fullName }) => fullName));
count('unit.json', (json) => ({ passed: json.numPassedTests, failed: json.numFailedTests, names: failedIn(json.testResults) }), unit);
const interfaceRun = tool('playwright', ['test', '-c', 'e2e/playwright.config.ts', '--reporter=list,json'], { PLAYWRIGHT_JSON_OUTPUT_NAME: join(results, 'interface.json') });
/** Titles of the specs of a suite, and of the suites in it, that did not pass. */
const notOk = ({ specs = [], suites = [] }) => [...specs.filter(({ ok }) => !ok).map(({ file, title }) => `${file}: ${title}`), ...suites.flatMap(notOk)];
count('interface.json', (json) => ({ passed: json.stats.expected + json.stats.flaky, failed: json.stats.unexpected + json.stats.skipped, names: notOk(json) }), interfaceRun);

for (const name of failures) console.log(`\nFailed: ${name}`);
console.log(`\n${counts.passed} passed, ${counts.failed} failed`);
process.exit(counts.failed === 0 ? 0 : 1);
