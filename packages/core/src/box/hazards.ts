import { firmwareOf } from '../machine/firmware';
import { judge } from '../system/judge';
import { knownFact } from '../model/known';
import { machineView } from '../system/view';
import { startOn } from '../starting/forMachine';
import { contentOf, firmwareTitle } from '../model/inspection';
import { targetOf } from '../write/target';
import { findImage, findMachine, findProfile, storesIn, type Bench, type Box } from '../model/bench';
import type { Stop } from '../model/box';
import { formatIec } from '../units/bytes';
import { contentTitle } from '../model/content';

export interface Hazard {
  grade: 'stop' | 'check' | 'note';
  stop: Stop;
  text: string;
  /** Id of the drive it is about, where it is about one. */
  store?: string;
}

const RANK = { stop: 0, check: 1, note: 2 };

function fromChoice(bench: Bench, box: Box): Hazard[] {
  const machine = findMachine(bench, box.machineId);
  const profile = findProfile(bench, box.profileId);
  if (!machine || !profile) return [];
  const judged = judge(machineView(bench, machine), profile, box);
  const out: Hazard[] = [];
  for (const f of judged.all) {
    if (f.outcome === 'no')
      out.push({
        grade: 'stop',
        stop: 'choose',
        text: `${profile.name} does not fit ${machine.name}. ${f.because}`,
      });
    // Secure Boot is settled at the firmware stop, and said there once, from the image's own bytes where they are known.
    if (f.outcome === 'change' && f.rule !== 'secure boot')
      out.push({ grade: 'check', stop: 'gather', text: `${f.because} ${f.repair ?? ''}`.trim() });
    if (f.outcome === 'ask')
      out.push({ grade: 'check', stop: 'survey', text: `${f.because} ${profile.name} depends on it.` });
  }
  const inside = storesIn(bench, machine.id);
  const kept = inside.find((d) => d.fate === 'keep');
  for (const d of inside.filter((x) => x.fate === 'not decided'))
    out.push({
      grade: 'stop',
      stop: 'install',
      text: `Whether what is on “${d.name}” in ${machine.name} may be lost is not decided: ${contentTitle(d) || 'empty, as far as known'}. Decide it, or take the drive out.`,
    });
  const takes =
    profile.installer === 'takes the first drive unasked'
      ? 'takes the first drive without asking'
      : profile.installer === 'preselects the first drive'
        ? 'comes with the first drive selected'
        : undefined;
  if (takes && kept) {
    out.push({
      grade: 'stop',
      stop: 'install',
      text: `The installer ${takes}, and “${kept.name}” in ${machine.name} holds ${contentTitle(kept) || 'what must be kept'}. Take it out first.`,
      store: kept.id,
    });
  } else if (takes && inside.length > 1) {
    out.push({
      grade: 'check',
      stop: 'install',
      text: `The installer ${takes}. Only the drive that may be lost should be in the machine.`,
    });
  }
  return out;
}

function fromImage(bench: Bench, box: Box): Hazard[] {
  const image = findImage(bench, box.imageId);
  const machine = findMachine(bench, box.machineId);
  const out: Hazard[] = [];
  if (!image) return out;
  if (image.comparison?.verdict === 'differs' || image.comparison?.verdict === 'other-size') {
    out.push({
      grade: 'stop',
      stop: 'verify',
      text: `${image.name} is not the file that was published. Fetch it again; nothing has been written.`,
    });
  } else if (!image.comparison) {
    out.push({
      grade: 'check',
      stop: 'verify',
      text: `${image.name} has not been compared with a published checksum.`,
    });
  }
  const content = image.inspection ? contentOf(image.inspection) : undefined;
  const { container } = image.inspection ?? {};
  if (container && container.kind !== 'none' && container.innerBytes !== null)
    out.push({
      grade: 'note',
      stop: 'write',
      text: `${image.name} is packed as ${container.kind}. The stand-in writer unpacks it; another writer may not, and then nothing starts.`,
    });
  for (const f of content?.findings ?? []) {
    if (f.grade !== 'note') out.push({ grade: f.grade, stop: 'verify', text: f.what });
  }
  const firmware = machine ? firmwareOf(machine) : undefined;
  const secureOn = machine !== undefined && knownFact(machine, 'firmware.secureBoot')?.value === 'on';
  const start = startOn(content, firmware, secureOn);
  if (!machine || !firmware || !start) return out;
  if (start.refused)
    out.push({
      grade: 'stop',
      stop: 'firmware',
      text: `${machine.name} has Secure Boot on and will refuse this image: ${start.because}. Turn it off at stop 6.`,
    });
  else if (start.starts === 'no')
    out.push({
      grade: 'stop',
      stop: 'verify',
      text: `${machine.name} starts by ${firmwareTitle[firmware]}, and from a stick this image does not: ${start.because}.`,
    });
  else if (start.starts === 'unknown')
    out.push({
      grade: 'check',
      stop: 'verify',
      text: `Whether ${machine.name} starts this image cannot be told from its bytes: ${start.because}.`,
    });
  else if (start.trustAssumed)
    out.push({
      grade: 'note',
      stop: 'firmware',
      text: `${machine.name} has Secure Boot on; this image starts if its firmware trusts the key: ${start.row.secureBoot?.because ?? ''}.`,
    });
  return out;
}

/** Hazards of a box, gravest first; each names the stop at which it is dealt with. */
export function hazards(bench: Bench, box: Box): Hazard[] {
  const machine = findMachine(bench, box.machineId);
  const out = [...fromChoice(bench, box), ...fromImage(bench, box)];
  if (box.written?.result === 'failed') {
    out.push({
      grade: 'stop',
      stop: 'write',
      text: `Stick …${box.written.serial.slice(-4)} failed its comparison. Do not start from it.`,
    });
  }
  if (machine) {
    const stopped = new Set(out.flatMap((h) => h.store ?? []));
    for (const s of storesIn(bench, machine.id).filter((x) => x.fate === 'keep' && !stopped.has(x.id))) {
      out.push({
        grade: 'check',
        stop: 'install',
        text: `“${s.name}” in ${machine.name} holds ${contentTitle(s) || 'what must be kept'}.`,
      });
    }
    if (knownFact(machine, 'display.portrait')?.value === true) {
      out.push({
        grade: 'note',
        stop: 'first-start',
        text: 'The panel is upright. Expect a sideways first screen.',
      });
    }
    if (knownFact(machine, 'ports.usb')?.value === 1) {
      out.push({
        grade: 'check',
        stop: 'gather',
        text: `${machine.name} has one USB port: the stick and the charger need a dock.`,
      });
    }
  }
  const target = targetOf(bench, box);
  if (target?.realBytes != null) {
    out.push({
      grade: 'stop',
      stop: 'write',
      text: `“${target.name}” claims ${formatIec(target.bytes)} and really holds about ${formatIec(target.realBytes)}. Take another stick.`,
    });
  }
  const order = out.map((h, i) => ({ h, i }));
  return order.sort((a, b) => RANK[a.h.grade] - RANK[b.h.grade] || a.i - b.i).map((x) => x.h);
}
