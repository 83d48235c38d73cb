/**
 * "npm run audit": fails for a package with a known weakness of high severity or above, unless it is allowed here with a
 * reason. Exit code 3: the registry does not answer audits.
 */
import { spawnSync } from 'node:child_process';
import { root } from './setup.mjs';

/**
 * Advisories that do not reach us, by their address: why, and until when that is taken to hold.
 * @type {Record<string, { why: string, until: string }>}
 */
const ALLOWED = {};

/** @param {any} report what `npm audit --json` writes @param {string} today @returns sentences about what is not allowed */
export function faultsOf(report, allowed = ALLOWED, today = new Date().toISOString().slice(0, 10)) {
  const faults = new Map();
  for (const { name, via } of Object.values(report.vulnerabilities ?? {}))
    for (const advisory of via) {
      // A name is another package of the same list.
      if (typeof advisory === 'string' || !['high', 'critical'].includes(advisory.severity)) continue;
      const { url, title, severity } = advisory;
      const exception = allowed[url];
      if (exception && exception.until >= today) continue;
      const past = exception ? ` (was allowed until ${exception.until}: ${exception.why})` : '';
      faults.set(url, `${name}: ${title} (${severity}), ${url}${past}`);
    }
  return [...faults.values()];
}

if (process.argv[1]?.endsWith('audit.mjs')) {
  const { stdout } = spawnSync('npm', ['audit', '--json'], {
    cwd: root,
    encoding: 'utf8',
    maxBuffer: 1 << 26,
  });
  let report = {};
  try {
    report = JSON.parse(stdout);
  } catch {
    // Not an answer.
  }
  if (!report.vulnerabilities) {
    console.log('The registry does not answer audits; nothing was checked.');
    process.exit(3);
  }
  const faults = faultsOf(report);
  for (const fault of faults) console.log(fault);
  process.exit(faults.length ? 1 : 0);
}
