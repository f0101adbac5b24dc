import { accessSync, constants } from 'node:fs';
import { delimiter, join } from 'node:path';
import type { TrialDesk, TrialFirmware } from '@zb/core/model/trial';

/** Where the emulator and its firmware are. */
export interface Places {
  /** Folders that are searched for commands, as PATH has them. */
  path: string;
  /** Folder of the UEFI builds. */
  firmware: string;
}

/** Files of Debian’s ovmf: code, and the variables it begins with. With Secure Boot on they hold the keys that machines are sold with. */
const UEFI: Record<Exclude<TrialFirmware, 'bios'>, { code: string; vars: string }> = {
  'uefi-x64': { code: 'OVMF_CODE_4M.fd', vars: 'OVMF_VARS_4M.fd' },
  'uefi-x64-secure': { code: 'OVMF_CODE_4M.secboot.fd', vars: 'OVMF_VARS_4M.ms.fd' },
};

const COMMAND = 'qemu-system-x86_64';

const reaches = (path: string, mode: number): boolean => {
  try {
    accessSync(path, mode);
    return true;
  } catch {
    return false;
  }
};

const find = (command: string, path: string): string | undefined =>
  path
    .split(delimiter)
    .filter((dir) => dir !== '')
    .map((dir) => join(dir, command))
    .find((at) => reaches(at, constants.X_OK));

/** The emulator, or undefined where there is none. */
export const emulator = ({ path }: Places): string | undefined => find(COMMAND, path);

/** Code and variables of firmware; undefined under BIOS, which the emulator brings along. */
export function firmwareFiles(
  of: TrialFirmware,
  { firmware }: Places,
  vars?: string,
): { code: string; vars: string } | undefined {
  if (of === 'bios') return undefined;
  const files = UEFI[of];
  return { code: join(firmware, files.code), vars: vars ?? join(firmware, files.vars) };
}

/** What is wanting for trials, by Debian’s packages. */
export function missing(places: Places): TrialDesk['missing'] {
  const files = (['uefi-x64', 'uefi-x64-secure'] as const).flatMap((f) =>
    Object.values(firmwareFiles(f, places) ?? {}),
  );
  return [
    ...(emulator(places) === undefined ? [{ what: 'the emulator', package: 'qemu-system-x86' }] : []),
    ...(files.every((f) => reaches(f, constants.R_OK))
      ? []
      : [{ what: 'its UEFI firmware', package: 'ovmf' }]),
  ];
}

/** Where Debian puts them. */
export const usualPlaces = (env: Record<string, string | undefined>): Places => ({
  path: env.ZB_EMULATOR_PATH ?? env.PATH ?? '/usr/local/bin:/usr/bin:/bin',
  firmware: env.ZB_EMULATOR_FIRMWARE ?? '/usr/share/OVMF',
});
