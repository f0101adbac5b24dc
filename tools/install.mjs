// Installs the npm packages where they are missing. Plain Node: it runs before anything is installed.
import { execFileSync } from 'node:child_process';
import { existsSync, readFileSync, statSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

function installed() {
  const mark = `${root}node_modules/.package-lock.json`;
  return existsSync(mark) && statSync(mark).mtimeMs >= statSync(`${root}package-lock.json`).mtimeMs - 1000;
}

export function installPackages() {
  const [major, minor] = process.versions.node.split('.').map(Number);
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(
      `Node ${readFileSync(`${root}.nvmrc`, 'utf8').trim()} or newer is needed; this is ${process.versions.node}.`,
    );
    process.exit(1);
  }
  if (installed()) return;
  console.log('Installing packages…');
  // `npm ci` takes what the lock file names and leaves the lock file as it is.
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], { cwd: root, stdio: 'inherit' });
}
