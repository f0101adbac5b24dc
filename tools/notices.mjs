// Third-party notices, made with the build: the name, version and licence text of every package that ships.
import { existsSync, readdirSync, readFileSync, writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const text = (path) => readFileSync(`${root}${path}`, 'utf8').trim();
const LICENCE = /^(licen[cs]e|copying|notice|ofl)([.-].*)?$/i;

/** Packages that ship with the application, each with what its own files say of its licence. */
export function shipped() {
  const { packages } = JSON.parse(text('package-lock.json'));
  return Object.entries(packages)
    .filter(
      ([path, p]) => path.includes('node_modules/') && !p.dev && !p.link && existsSync(`${root}${path}`),
    )
    .map(([path, p]) => {
      const own = JSON.parse(text(`${path}/package.json`));
      return {
        name: own.name,
        version: p.version,
        licence: String(p.license ?? own.license ?? 'not said'),
        texts: readdirSync(`${root}${path}`, { withFileTypes: true })
          .filter((f) => f.isFile() && LICENCE.test(f.name))
          .map((f) => text(`${path}/${f.name}`)),
      };
    })
    .sort((a, b) => (a.name < b.name ? -1 : a.name > b.name ? 1 : 0));
}

/** The notices as one text. */
export function notices() {
  const list = shipped();
  const copyleft = list.filter((p) => /GPL/.test(p.licence));
  const line = '-'.repeat(72);
  return [
    'Third-party notices',
    '',
    'Zealous Box itself is under the MIT licence. It ships with these packages, each under its own licence.',
    ...(copyleft.length > 0
      ? [
          '',
          `Under the GNU Lesser General Public License: ${copyleft.map((p) => `${p.name} ${p.version}`).join(', ')}.`,
          'It is a file of its own, beside the others, and is loaded only when a signed list of checksums is checked.',
          'You may put another version of it in its place: in the page assets/openpgp.min-*.js, on the command line',
          'dist/openpgp-*.mjs; or install one with npm and run the build again. Its source is in its npm package.',
        ]
      : []),
    ...list.flatMap((p) => [
      '',
      line,
      `${p.name} ${p.version}: ${p.licence}`,
      ...p.texts.flatMap((t) => ['', t]),
    ]),
    ...(copyleft.length > 0
      ? [
          '',
          line,
          'GNU General Public License, to which the lesser one refers',
          '',
          text('tools/licences/GPL-3.0.txt'),
        ]
      : []),
    '',
  ].join('\n');
}

/** Puts the notices beside what was built. */
export function writeNotices() {
  const all = notices();
  for (const folder of ['packages/web/dist', 'packages/cli/dist', 'packages/server/dist'])
    writeFileSync(`${root}${folder}/third-party-notices.txt`, all);
}
