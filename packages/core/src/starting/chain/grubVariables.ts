import { readText, type Wanted } from './files';
import { environmentBlock, optionsOf, type GrubDevices, type Resolved } from './grubEnvironment';

/** What commands that set variables work on. */
interface Variables {
  readonly vars: Map<string, string>;
  readonly machine: { devices: GrubDevices };
  resolve(path: string): Resolved<Wanted>;
}

/** load_env: takes variables from an environment block; all of them, or those that are named. */
export async function loadEnvironment(run: Variables, words: string[]): Promise<boolean> {
  const { options, rest } = optionsOf(words, ['f', 'file']);
  const at = run.resolve(
    options.get('f') ?? options.get('file') ?? `${run.vars.get('prefix') ?? ''}/grubenv`,
  );
  const file = 'why' in at ? at : await readText(at.found);
  if ('why' in file) return false;
  for (const [name, value] of environmentBlock(file.text))
    if (rest.length === 0 || rest.includes(name)) run.vars.set(name, value);
  return true;
}

/** probe: puts a device's UUID, label or file system into a variable. */
export function probeDevice(run: Variables, words: string[]): boolean {
  const { options, rest } = optionsOf(words, ['s', 'set']);
  const device = run.machine.devices.find((rest[0] ?? '').replace(/^\((.*)\)$/, '$1'));
  if ('why' in device) return false;
  const { uuid, label, filesystem } = device.found;
  const asks = (short: string, long: string): boolean => options.has(short) || options.has(long);
  const value = asks('u', 'fs-uuid') ? uuid : asks('l', 'label') ? label : filesystem;
  run.vars.set(options.get('s') ?? options.get('set') ?? '', value ?? '');
  return value !== undefined;
}
