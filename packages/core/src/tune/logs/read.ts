import { strToU8 } from 'fflate';
import { textOf } from '../../units/text';
import { documentsIn } from './documents';
import { LogReadError, MOST_BYTES, type TuneLog } from './log';
import { isRecorded } from './recorder';
import { readSensors } from './sensors';
import { readTable, type TellShare } from './table';
import { readFio, readFioRates, readIperf, readMemtester, readSmart, readStress } from './tools';
import { readTurbostat } from './turbostat';

const PEEK = 64 * 1024;

/** Bytes that no text has, in the first stretch: more than a few, and it is none. */
function oddIn(bytes: Uint8Array): number {
  let odd = 0;
  for (let i = 0; i < Math.min(PEEK, bytes.length); i += 1) {
    const c = bytes[i] ?? 0;
    if (c < 9 ? c !== 8 : c > 13 && c < 32 && c !== 27) odd += 1;
  }
  return odd;
}

/** Text in UTF-16, as some meters write it, as UTF-8. */
function asUtf8(bytes: Uint8Array): Uint8Array {
  const mark = ((bytes[0] ?? 0) << 8) | (bytes[1] ?? 0);
  if (mark !== 0xfffe && mark !== 0xfeff) return bytes;
  const little = mark === 0xfffe ? 1 : 0;
  const parts: string[] = [];
  for (let at = 2; at + 1 < bytes.length; at += 16_384) {
    const units: number[] = [];
    for (let i = at; i + 1 < Math.min(bytes.length, at + 16_384); i += 2)
      units.push(((bytes[i + little] ?? 0) << 8) | (bytes[i + 1 - little] ?? 0));
    parts.push(String.fromCharCode(...units));
  }
  return strToU8(parts.join(''));
}

/**
 * Reads a log of any kind we know, told by its own bytes: frame times, tables of readings, our recorder, and what sensors,
 * turbostat, fio, iperf3, smartctl, memtester and stress-ng print. Throws LogReadError; what could be read in spite of a fault is
 * given with the fault.
 */
export function readLog(file: Uint8Array, tell?: TellShare): TuneLog {
  if (file.length === 0) throw new LogReadError('empty');
  if (file.length > MOST_BYTES) throw new LogReadError('too large', String(file.length));
  const bytes = asUtf8(file);
  const odd = oddIn(bytes);
  if (odd > 64) throw new LogReadError('not text');
  const log = readText(bytes, tell);
  if (odd > 0) log.faults.push({ code: 'odd bytes', count: odd });
  return log;
}

function readText(bytes: Uint8Array, tell: TellShare | undefined): TuneLog {
  const start = textOf(bytes.subarray(0, PEEK)).replace(/^\ufeff/, '');
  if (start.trim() === '' && bytes.length <= PEEK) throw new LogReadError('empty');
  const whole = (): string => textOf(bytes).replace(/^\ufeff/, '');
  if (isRecorded(start)) {
    const log = readTable(bytes, tell);
    // Times alone would pass for frame times.
    if (log.series.length === 0) throw new LogReadError('no log', 'the machine showed no sensor');
    return { ...log, kind: 'recorder' };
  }
  if (/^\s*[{]/.test(start) || /\n\{[ \t\r]*\n[ \t]*"/.test(start)) return readJson(whole());
  if (/^\s*\d+,\s*\d+,\s*[012],\s*\d+/.test(start)) {
    const rates = readFioRates(whole());
    if (rates) return rates;
  }
  if (/^memtester version/m.test(start)) return readMemtester(whole());
  if (/^stress-ng: /m.test(start)) return readStress(whole());
  if (/(^|\s)(Busy%|Bzy_MHz|PkgWatt)(\s|$)/m.test(start)) return readTurbostat(whole()) ?? none();
  return readTable(bytes, tell);
}

const none = (detail = ''): never => {
  throw new LogReadError('no log', detail);
};

function readJson(text: string): TuneLog {
  const { documents, cut } = documentsIn(text);
  const last = documents[documents.length - 1]?.value;
  const log = readFio(last) ?? readIperf(last) ?? readSmart(last);
  if (!log) return readSensors(documents, cut) ?? none('JSON of another kind');
  const lines = text.split('\n').length;
  if (cut) log.faults.push({ code: 'cut', line: lines });
  return { ...log, lines };
}
