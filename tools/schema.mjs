// Writes the JSON Schema of the bench file and of shared systems from the Zod schemas, so that the two cannot drift apart.
import { build } from 'esbuild';
import { writeFileSync } from 'node:fs';
import { fileURLToPath } from 'node:url';

const root = fileURLToPath(new URL('..', import.meta.url));
const { outputFiles } = await build({
  absWorkingDir: root,
  stdin: {
    contents: "export { jsonSchemas } from './packages/core/src/model/jsonSchema';",
    resolveDir: root,
    loader: 'ts',
  },
  bundle: true,
  format: 'esm',
  platform: 'node',
  write: false,
});
const { jsonSchemas } = await import(
  `data:text/javascript;base64,${Buffer.from(outputFiles[0].contents).toString('base64')}`
);
for (const [name, text] of Object.entries(jsonSchemas())) writeFileSync(`${root}docs/${name}`, text);
