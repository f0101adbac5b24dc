import { tradeLines } from '@zb/core/box/summary';
import { arranged, findBox, findItem, storesOf, type Bench, type Box } from '@zb/core/model/bench';
import { benchFromText } from '@zb/core/model/file';
import { isImage, isStore } from '@zb/core/model/shelf';
import { stops } from '@zb/core/model/stops';
import { randomFrom } from '@zb/core/units/random';
import { caveatWords, eraseLevelWords, noCommandWords } from '@zb/core/words/erase';
import { notFromFileWords, severalWords } from '@zb/core/words/several';
import { schoolWayWords, tradeWords } from '@zb/core/words/trade';
import { erasePlan, samplesOf } from '@zb/core/write/erase';
import { severalOnStick } from '@zb/core/write/severalOnStick';
import { InputError } from './inputFile';

/** A bench file as the page would show it. */
export const readBench = (text: string): Bench => arranged(benchFromText(text));

/** A box of a bench by its id. Throws InputError. */
export function boxOf(bench: Bench, id: string): Box {
  const box = findBox(bench, id);
  if (!box) throw new InputError(`there is no box ${id} on this bench`);
  return box;
}

/** What `zb erase` prints: ways with their level, command and seconds, and places to read back in bytes. */
export function eraseOutput(text: string, id: string, seed: string) {
  const item = findItem(readBench(text), id);
  if (!item || !isStore(item)) throw new InputError(`there is no drive, card or stick ${id} on this bench`);
  if (!/^\d{1,9}$/.test(seed)) throw new InputError(`--seed takes a number, not ${seed}`);
  const plan = erasePlan(item);
  return {
    id,
    name: item.name,
    fate: item.fate,
    kind: plan.kind,
    source: plan.source,
    find: plan.find,
    not: plan.not && noCommandWords(plan.not),
    ways: plan.ways.map((w) => ({ ...w, sure: eraseLevelWords(w.level), but: caveatWords(w) })),
    readBack: samplesOf(item.bytes, randomFrom(Number(seed))),
  };
}

/** What `zb lines` prints: for each stop the lines of the trade, as data and in words. */
export function linesOutput(text: string, id: string, stop: string | undefined) {
  const bench = readBench(text);
  const box = boxOf(bench, id);
  const asked = stops.filter((s) => stop === undefined || s === stop);
  if (asked.length === 0) throw new InputError(`there is no stop ${stop}; the stops are ${stops.join(', ')}`);
  return asked.flatMap((s) =>
    tradeLines(bench, box, s).map((line) => ({
      stop: s,
      ...line,
      ...('ways' in line ? { ways: line.ways.map((w) => ({ ...w, says: schoolWayWords(w) })) } : {}),
      says: tradeWords(line),
    })),
  );
}

/** What `zb several` prints: the images, the bytes they need, sticks that hold them, and the loader's configuration. */
export function severalOutput(text: string, ids: readonly string[] | undefined) {
  const bench = readBench(text);
  const images = bench.items.filter(isImage);
  for (const id of ids ?? [])
    if (!images.some((i) => i.id === id)) throw new InputError(`there is no image ${id} on this bench`);
  const plan = severalOnStick(
    images.filter((i) => ids?.includes(i.id) ?? true),
    storesOf(bench),
  );
  return {
    ...plan,
    images: plan.images.map((i) => ({ ...i, says: i.not && notFromFileWords(i.not) })),
    says: severalWords(plan),
  };
}
