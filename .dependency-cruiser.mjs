/*
 * What may lean on what. Inside core a layer imports only from those before it (docs/architecture.md), and nowhere in
 * the repository do files import each other in a circle.
 */
const LAYERS = [
  'units',
  'formats',
  'model',
  'machine',
  'plan',
  'system',
  'assign',
  'checksum',
  'container',
  'image',
  'starting',
  'write',
  'layout',
  'opening',
  'gather',
  'network',
  'firststart',
  'storage',
  'content',
  'rules',
  'guests',
  'tune',
  'keeping',
  'rehearsal',
  'diagnose',
  'runsheet',
  'schedule',
  'learning',
  'practice',
  'box',
  'words',
  'exports',
  'acts',
  'demo',
];
const folder = (names) => `^packages/core/src/(${names.join('|')})/`;

/** @type {import('dependency-cruiser').IConfiguration} */
export default {
  forbidden: [
    {
      name: 'no-circle',
      comment: 'Files that need each other are one thing: bring them together, or find what both lean on.',
      severity: 'error',
      from: {},
      to: { circular: true },
    },
    ...LAYERS.slice(0, -1).map((layer, i) => ({
      name: `layer-${layer}`,
      comment: `${layer}/ imports only from the layers before it.`,
      severity: 'error',
      from: { path: folder([layer]) },
      to: { path: folder(LAYERS.slice(i + 1)) },
    })),
    {
      name: 'known-layer',
      comment: 'A folder of core that is no layer yet: give it its place in the list above.',
      severity: 'error',
      from: { path: '^packages/core/src/', pathNot: folder(LAYERS) },
      to: {},
    },
  ],
  options: {
    doNotFollow: { path: 'node_modules' },
    exclude: { path: '(^|/)dist/' },
    tsPreCompilationDeps: true,
    tsConfig: { fileName: 'tsconfig.json' },
    enhancedResolveOptions: { exportsFields: ['exports'], conditionNames: ['import', 'default'] },
  },
};
