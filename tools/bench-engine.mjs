// Modules of the core as they are shipped, bundled as a thread of the page has them.
import { build } from 'esbuild';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));

/** What these modules export; `contents` says which, with paths from the top of the project. */
export async function engine(contents) {
  const { outputFiles } = await build({
    absWorkingDir: root,
    stdin: { contents, resolveDir: root, loader: 'ts' },
    bundle: true,
    minify: true,
    format: 'esm',
    write: false,
  });
  return import(`data:text/javascript;base64,${Buffer.from(outputFiles[0].contents).toString('base64')}`);
}
