import { existsSync, statSync } from 'node:fs';
import { resolve } from 'node:path';
import { z } from 'zod';
import { faultCode, faultWords } from './files/faultWords';
import { makeFolderNow } from './files/makeFolder';
import { usualPlaces } from '@zb/emulator/places';
import type { ServerOptions } from './app';

/** What the environment asks for and cannot be had; the message is for the user. */
export class SettingsFault extends Error {
  override name = 'SettingsFault';
}

const number = (usual: string) =>
  z
    .string()
    .default(usual)
    .transform((text) => (text.trim() === '' ? Number.NaN : Number(text)));
const envSchema = z.object({
  PORT: number('0').pipe(z.number().int().min(0).max(65535)),
  ZB_DATA: z.string().min(1).default('.zb-data'),
  ZB_WEB: z.string().default('packages/web/dist'),
  ZB_DEMO: z.string().optional(),
  ZB_LAN: z.string().optional(),
  ZB_WRITER_PACE: number('1').pipe(z.number().nonnegative()),
  ZB_SECURE_VARS: z.string().optional(),
  ZB_IDLE_SECONDS: number('30').pipe(z.number().positive()),
});
const WANTED: Record<string, string> = {
  PORT: 'a port number from 0 to 65535 (0 takes a free one)',
  ZB_DATA: 'the name of a folder',
  ZB_WRITER_PACE: 'a number from 0, as a factor to the speed of the sticks (0 does not wait at all)',
  ZB_IDLE_SECONDS: 'a number of seconds above 0',
};

/** Reads the settings out of the environment. Throws SettingsFault with words for the first that cannot be meant. */
export function settingsFrom(env: Record<string, string | undefined>): ServerOptions & { port: number } {
  const parsed = envSchema.safeParse(env);
  if (!parsed.success) {
    const name = String(parsed.error.issues[0]?.path[0] ?? '');
    throw new SettingsFault(
      `${name} is “${env[name] ?? ''}”, but must be ${WANTED[name] ?? 'something else'}.`,
    );
  }
  const { PORT, ZB_DATA, ZB_WEB, ZB_DEMO, ZB_LAN, ZB_WRITER_PACE, ZB_IDLE_SECONDS, ZB_SECURE_VARS } =
    parsed.data;
  const dataDir = resolve(ZB_DATA);
  const webDir = resolve(ZB_WEB);
  needFolder(dataDir);
  return {
    port: PORT,
    dataDir,
    ...(existsSync(webDir) && ZB_WEB !== 'none' ? { webDir } : {}),
    demo: ZB_DEMO === '1',
    lan: ZB_LAN === '1',
    pace: ZB_WRITER_PACE,
    idleSeconds: ZB_IDLE_SECONDS,
    emulator: usualPlaces(env),
    ...(ZB_SECURE_VARS === undefined ? {} : { secureVars: ZB_SECURE_VARS }),
  };
}

/** A full disk is no reason not to start: what cannot be kept then is said. Anything else that is no folder is. */
function needFolder(dataDir: string): void {
  try {
    makeFolderNow(dataDir);
    if (!statSync(dataDir).isDirectory()) throw Object.assign(new Error('no folder'), { code: 'ENOTDIR' });
  } catch (error) {
    if (faultCode(error) === 'ENOSPC') return;
    const why = faultCode(error) === 'EEXIST' ? 'a file stands where a folder should be' : faultWords(error);
    throw new SettingsFault(`The data folder ZB_DATA cannot be used: ${why}. Name another folder.`);
  }
}
