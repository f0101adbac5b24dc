import { randomBytes } from 'node:crypto';
import { bundleOf, firstStartOf } from '@zb/core/firststart/forBox';
import { evenDraw, passphrase, passphraseBits } from '@zb/core/firststart/passphrase';
import { blackUpTo } from '@zb/core/firststart/waiting';
import { sheetOf } from '@zb/core/firststart/screen';
import { testSheet } from '@zb/core/firststart/sheet';
import { findMachine, findProfile } from '@zb/core/model/bench';
import { firstFaultWords, firstHeadline, firstLineTitle, firstWhyWords } from '@zb/core/words/firstStart';
import { strengthWords } from '@zb/core/words/password';
import { boxOf, readBench } from './benchOutput';
import { InputError } from './inputFile';

/** What `zb firststart` prints: the list in its order, each line with its reason and what it waits for. Seconds. Throws InputError. */
export function firstStartOutput(text: string, id: string): object {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const found = firstStartOf(bench, box);
  if ('code' in found) throw new InputError(firstHeadline(found, box.name));
  const title = (key: string): string => {
    const line = found.lines.find((l) => l.key === key);
    return line ? firstLineTitle(line) : key;
  };
  const profile = findProfile(bench, box.profileId);
  return {
    box: id,
    headline: firstHeadline(found, box.name),
    online: found.online ?? null,
    lines: found.lines.map((l) => ({ ...l, title: firstLineTitle(l), because: firstWhyWords(l.why) })),
    faults: found.faults.map((f) => ({ ...f, says: firstFaultWords(f, title) })),
    hands: found.hands,
    waiting: found.waiting,
    black: profile ? blackUpTo(profile.first) : null,
    rounds: found.record.rounds,
    bundle: bundleOf(bench, box).lines,
  };
}

/** What `zb testsheet` prints: the page by itself. Throws InputError. */
export function sheetOutput(text: string, id: string): string {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  return testSheet(sheetOf(box, findMachine(bench, box.machineId)));
}

/** The most words that anybody types. */
const MOST_WORDS = 20;

/** What `zb passphrase` prints: words drawn from the list by the machine’s own source of chance, and what that is worth. Throws InputError. */
export async function passphraseOutput(words: string): Promise<object> {
  const n = Number(words);
  if (!Number.isInteger(n) || n < 1 || n > MOST_WORDS)
    throw new InputError(`--words is a whole number from 1 to ${MOST_WORDS}`);
  // The list and the estimator are large, and no other command wants them.
  const { wordList } = await import('@zb/core/firststart/strength');
  return {
    passphrase: passphrase(wordList, n, evenDraw(randomBytes)),
    words: n,
    list: wordList.length,
    bits: Math.round(passphraseBits(wordList.length, n) * 100) / 100,
  };
}

/** What `zb strength` prints of the password on standard input, which it keeps nowhere. */
export async function strengthOutput(text: string): Promise<object> {
  const { strengthOf } = await import('@zb/core/firststart/strength');
  const strength = strengthOf(text.replace(/\r?\n$/, ''));
  return { ...strength, says: strengthWords(strength) };
}
