/**
 * A layer under the server, loaded before it: faults of the file system in the server's own folder, at a chosen call. Told
 * by messages what to do, tells by messages what it did. Only the stress test loads it.
 */
import fs from 'node:fs';
import fsPromises, { type FileHandle } from 'node:fs/promises';
import { syncBuiltinESMExports } from 'node:module';
import type { FaultPlan, FaultReport } from './faultPlan';

const folder = process.env.ZB_DATA ?? '/nowhere';
let plan: FaultPlan | undefined;
let hits = 0;
/** What the open files are called, by their number. */
const names = new Map<number, string>();

const fault = (code: string): Error => Object.assign(new Error(`${code}: made by the stress test`), { code });

/** Puts something else where a file is. */
function replace(path: string, by: FaultPlan['replaceBy']): void {
  original.rmSync(path, { recursive: true, force: true });
  if (by === 'folder') original.mkdirSync(path);
  if (by === 'link') fs.symlinkSync('/nowhere/at/all', path);
}

/** Called before every call; throws where the plan says so, answers a share of the bytes where only some are to be taken. */
function before(call: string, path: string | undefined): number {
  if (!plan || path === undefined || !path.startsWith(folder) || !path.includes(plan.where)) return 1;
  if (!plan.calls.includes(call)) return 1;
  if (plan.skip > 0) {
    plan.skip -= 1;
    return 1;
  }
  if (plan.times <= 0) return 1;
  plan.times -= 1;
  hits += 1;
  if (plan.replaceBy) replace(path, plan.replaceBy);
  if (plan.short) return 0.5;
  if (plan.code) throw fault(plan.code);
  return 1;
}

const original = { ...fs };
const text = (path: unknown): string | undefined =>
  typeof path === 'number' ? names.get(path) : typeof path === 'string' ? path : undefined;
type Call = (...args: unknown[]) => unknown;
const at = fs as unknown as Record<string, Call>;
for (const name of [
  'readFileSync',
  'renameSync',
  'mkdirSync',
  'rmSync',
  'readdirSync',
  'appendFileSync',
  'fsyncSync',
  'statSync',
]) {
  const real = at[name];
  if (real)
    at[name] = (...args) => {
      before(name.replace('Sync', ''), text(args[0]));
      return real(...args);
    };
}
at.openSync = (...args) => {
  before('open', text(args[0]));
  const number = (original.openSync as Call)(...args) as number;
  names.set(number, String(args[0]));
  return number;
};
at.writeSync = (...args) => {
  const share = before('write', text(args[0]));
  const [file, bytes, from = 0] = args as [number, Uint8Array, number?];
  return original.writeSync(file, bytes, from, Math.max(1, Math.floor((bytes.length - from) * share)));
};

const promises = fsPromises as unknown as Record<string, (...args: unknown[]) => Promise<unknown>>;
for (const name of ['mkdir', 'rename', 'rm']) {
  const real = promises[name];
  if (real)
    promises[name] = async (...args) => {
      before(name, text(args[0]));
      return real(...args);
    };
}
const realOpen = promises.open;
promises.open = async (...args) => {
  before('open', text(args[0]));
  const file = (await realOpen?.(...args)) as FileHandle;
  const path = String(args[0]);
  const own = file as unknown as Record<string, (...a: unknown[]) => Promise<unknown>>;
  for (const name of ['truncate', 'datasync', 'stat']) {
    const real = own[name]?.bind(file);
    if (real)
      own[name] = async (...a) => {
        before(name, path);
        return real(...a);
      };
  }
  const write = file.write.bind(file) as (...a: unknown[]) => Promise<{ bytesWritten: number }>;
  own.write = async (...a) => {
    const share = before('write', path);
    const [bytes, from, length, position] = a as [Uint8Array, number, number, number];
    return write(bytes, from, Math.max(1, Math.floor(length * share)), position);
  };
  const read = file.read.bind(file) as (...a: unknown[]) => Promise<{ bytesRead: number }>;
  own.read = async (...a) => {
    const share = before('read', path);
    const [bytes, from, length, position] = a as [Uint8Array, number, number, number];
    return read(bytes, from, Math.max(1, Math.floor(length * share)), position);
  };
  return file;
};
syncBuiltinESMExports();

if (process.env.ZB_STRESS_FAULT !== undefined) plan = JSON.parse(process.env.ZB_STRESS_FAULT) as FaultPlan;
process.on('message', (message: FaultPlan | null) => {
  const report: FaultReport = { hits };
  hits = 0;
  plan = message ?? undefined;
  process.send?.(report);
});
// The line of the stress test must not keep a server alive that wants to end.
process.channel?.unref();
