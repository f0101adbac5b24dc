/** What one stage decides, the others know: whole plans of other shapes than the demo's, each with its last state. */
import { chooseProfile, updateBox } from '@zb/core/acts/box';
import { decideLayout, takePrecautions } from '@zb/core/acts/install';
import { doneStep, leaveStep } from '@zb/core/acts/run';
import { settingChanged } from '@zb/core/acts/shelf';
import { recordWrite } from '@zb/core/acts/write';
import { planOf, type Plan } from '@zb/core/box/plan';
import { runSheetOf, type RunStep } from '@zb/core/box/runSheet';
import { hazards } from '@zb/core/box/summary';
import { timedSteps } from '@zb/core/box/timed';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { gatherList } from '@zb/core/gather/list';
import { laidBox } from '@zb/core/layout/forBox';
import { credible } from '@zb/core/learning/credible';
import {
  findBox,
  findMachine,
  findProfile,
  storesOf,
  type Bench,
  type Box,
  type Store,
} from '@zb/core/model/bench';
import { applyChanges, type Act } from '@zb/core/model/changes';
import { knownFact } from '@zb/core/model/known';
import { plainAdapter, readImageItem } from '@zb/core/model/blank';
import { isStore, type ShelfItem } from '@zb/core/model/shelf';
import { theBench } from '@zb/core/model/bench';
import { openingOf } from '@zb/core/opening/forBox';
import { boxPlan } from '@zb/core/rehearsal/forBox';
import { judgeAll } from '@zb/core/system/judge';
import { buildSheet } from '@zb/core/words/buildSheet';
import { openingStepWords } from '@zb/core/words/opening';
import { runStepWords } from '@zb/core/words/runsheet/step';
import { writeHeadline } from '@zb/core/words/write';
import { chainSticks } from '@zb/core/write/chainSticks';

const hall = saltmarshHall();
let ids = 0;
let clock = Date.parse('2026-06-01T09:00:00.000Z');
const stamp = () => {
  clock += 60_000;
  return { now: new Date(clock).toISOString(), id: () => `made-${(ids += 1)}` };
};
const done = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
const boxIn = (bench: Bench, id: string): Box => {
  const found = findBox(bench, id);
  if (!found) throw new Error(`no box ${id}`);
  return found;
};
const store = (bench: Bench, id: string): Store => {
  const found = storesOf(bench).find((s) => s.id === id);
  if (!found) throw new Error(`no store ${id}`);
  return found;
};
const film = 'film-night';
const change = (bench: Bench, to: Partial<Box>, id = film): Bench =>
  done(bench, updateBox(boxIn(bench, id), to, ''));
const withStore = (bench: Bench, id: string, to: Partial<Omit<Store, 'kind'>>): Bench => ({
  ...bench,
  items: bench.items.map((i) => (i.id === id && isStore(i) ? { ...i, ...to } : i)),
});
const plan = (bench: Bench, id = film): Plan => planOf(bench, boxIn(bench, id));
const keys = (bench: Bench, id = film): string[] => plan(bench, id).sheet.steps.map((s) => s.key);
const stepOf = (bench: Bench, key: string, id = film): RunStep => {
  const found = plan(bench, id).sheet.steps.find((s) => s.key === key);
  if (!found) throw new Error(`no step ${key} among ${keys(bench, id).join(', ')}`);
  return found;
};
const before = (bench: Bench, first: string, then: string, id = film): boolean =>
  keys(bench, id).indexOf(first) < keys(bench, id).indexOf(then);
const endOf = (bench: Bench, drive: string, id = film): Store => store(plan(bench, id).end.bench, drive);
const [stick, second] = storesOf(hall).filter(
  (s) => s.kind === 'stick' && s.fate === 'may be lost' && s.in === null && s.serial !== null,
);
if (!stick || !second) throw new Error('the hall has two free sticks');
/** Film night with its stick, alone on the bench. */
const whole = change(
  { ...hall, boxes: hall.boxes.filter((b) => b.id === film) },
  { targetSerial: stick.serial, signoffs: [] },
);
const straight = (bench: Bench): Bench => ({
  ...bench,
  profiles: bench.profiles.map((p) =>
    p.id === 'curtain-player' ? { ...p, installer: 'written straight to the final drive' as const } : p,
  ),
});

describe('a drive that is written in an adapter', () => {
  const inside = withStore(withStore(straight(whole), 'loose-480', { in: 'tern' }), 'tern-ssd', { in: null });
  const bridge: ShelfItem = {
    kind: 'adapter',
    id: 'bridge',
    name: 'SATA to USB',
    from: 'SATA',
    to: 'USB',
    notes: '',
    ...plainAdapter,
  };
  const adapted = change(
    { ...inside, items: [...inside.items, bridge] },
    { targetSerial: store(inside, 'loose-480').serial, layout: null },
  );

  it('comes out, is written, and goes back in, and the machine boots from it', () => {
    const order = ['open:out:loose-480', 'write:write', 'open:in:loose-480', 'open:screws'];
    for (const [i, key] of order.slice(1).entries())
      expect([key, before(adapted, order[i] ?? '', key)]).toEqual([key, true]);
    expect(endOf(adapted, 'loose-480')).toMatchObject({
      in: 'tern',
      fate: 'keep',
      installed: { boxId: film },
    });
    const out = stepOf(adapted, 'open:out:loose-480');
    expect(out.what.code === 'open' && openingStepWords(out.what.what).because).toMatch(/adapter/);
    expect(keys(adapted)).not.toContain('start:stick');
  });

  it('wants an adapter, in every place or in none', () => {
    const line = gatherList(adapted, boxIn(adapted, film)).lines.find(
      (l) => l.thing.code === 'drive adapter',
    );
    expect(line?.where).toBe('on the shelf');
    const bare = { ...adapted, items: adapted.items.filter((i) => i.kind !== 'adapter') };
    expect(
      gatherList(bare, boxIn(bare, film)).lines.find((l) => l.thing.code === 'drive adapter')?.where,
    ).toBe('to buy');
    expect(plan(bare).unmet.map((u) => [u.key, u.must.code])).toEqual([
      ['write:write', 'adapter is at hand'],
    ]);
    expect(plan(adapted).unmet).toEqual([]);
  });
});

describe('a stick on the way to the drive inside', () => {
  const inside = withStore(withStore(straight(whole), 'loose-480', { in: 'tern' }), 'tern-ssd', { in: null });
  const open = change(inside, { layout: null });

  it('is a Stop until it is decided how, and loses no step meanwhile', () => {
    expect(plan(open).unmet.map((u) => u.must.code)).toEqual(['way is decided']);
    for (const key of ['start:stick', 'start:go', 'inst:copy', 'back:stick'])
      expect(keys(open)).toContain(key);
    const unnamed = change(open, { targetSerial: null });
    for (const key of ['start:stick', 'start:go', 'inst:copy', 'back:stick'])
      expect(keys(unnamed)).toContain(key);
  });

  it('leads to the drive inside once that is decided', () => {
    const decisions = [
      { id: 'write-way', stop: 'write' as const, what: '', value: 'installer stick', because: '', at: '' },
    ];
    const by = change(open, { decisions });
    expect(plan(by).unmet).toEqual([]);
    expect(endOf(by, 'loose-480')).toMatchObject({ in: 'tern', installed: { boxId: film } });
    expect(endOf(by, stick.id)).toMatchObject({ in: null, installed: null });
  });
});

describe('a system on a second stick or an external drive', () => {
  it.each([
    [
      'a second stick',
      (b: Bench): Bench => done(b, decideLayout(boxIn(b, film), { driveId: second.id }, '')),
      second.id,
    ],
    [
      'an external drive',
      (b: Bench): Bench =>
        done(
          withStore(b, 'loose-480', { transport: 'usb', attachment: 'external' }),
          decideLayout(boxIn(b, film), { driveId: 'loose-480' }, ''),
        ),
      'loose-480',
    ],
  ])('%s is plugged in, holds the system, and nothing is to be bought for it', (_, made, id) => {
    const bench = made(whole);
    expect(before(bench, 'start:target', 'start:stick')).toBe(true);
    expect(endOf(bench, id)).toMatchObject({ in: 'tern', installed: { boxId: film } });
    expect(plan(bench).unmet).toEqual([]);
    const { lines } = gatherList(bench, boxIn(bench, film));
    expect(lines.filter((l) => l.thing.code === 'purchase' || l.key.startsWith('bag-'))).toEqual([]);
    // The one that comes out is named, and that it is not alone.
    const out = stepOf(bench, 'back:stick');
    expect(runStepWords(out.what).title).toContain(stick.name);
    expect(runStepWords(stepOf(bench, 'start:stick').what).why).toContain(store(bench, id).name);
  });
});

describe('a chain loader', () => {
  const nvme = withStore(whole, 'loose-480', { transport: 'nvme', m2: null });
  const machine = findMachine(nvme, 'tern');
  if (!machine) throw new Error('no tern');
  const cannot: Bench = {
    ...nvme,
    items: nvme.items.map((i) =>
      i.id === 'tern'
        ? {
            ...machine,
            facts: { ...machine.facts, 'firmware.startsNvme': { entered: { value: false, at: '' } } },
          }
        : i,
    ),
  };
  const chained = change(cannot, { chain: { stickId: second.id, seconds: 5 } });

  it('is lacking where the firmware does not boot the drive', () => {
    const goal = plan(cannot).goals.find((g) => g.goal.code === 'boots its system');
    expect(goal?.holds).toBe(false);
    expect(goal?.wayOut?.stage).toBe('firmware');
  });

  it('is made, plugged in, left in and put first, and the plan reaches its end by it', () => {
    expect(before(chained, 'write:chain', 'back:chain')).toBe(true);
    expect(before(chained, 'back:stick', 'back:chain')).toBe(true);
    const end = plan(chained).end;
    expect(store(end.bench, second.id)).toMatchObject({ in: 'tern', fate: 'keep' });
    expect(findMachine(end.bench, 'tern')?.bootFirst).toBe(second.id);
    expect(plan(chained).goals.find((g) => g.goal.code === 'boots its system')?.holds).toBe(true);
    expect(gatherList(chained, boxIn(chained, film)).lines.map((l) => l.itemId)).toContain(second.id);
  });

  it('is never another build’s stick', () => {
    const other = { ...boxIn(whole, film), id: 'other', name: 'Other', targetSerial: second.serial };
    const two = { ...whole, boxes: [...whole.boxes, other] };
    expect(chainSticks(whole, boxIn(whole, film)).map((s) => s.id)).toContain(second.id);
    expect(chainSticks(two, boxIn(two, film)).map((s) => s.id)).not.toContain(second.id);
  });
});

describe('what an installer asks', () => {
  const asks = ['language', 'keyboard', 'disk', 'user', 'password', 'address'] as const;
  const asking: Bench = {
    ...whole,
    profiles: whole.profiles.map((p) =>
      p.id === 'curtain-player'
        ? { ...p, login: 'set at install' as const, manner: { ...p.manner, asks: [...asks] } }
        : p,
    ),
  };

  it('stands where it asks it, and not in the first start', () => {
    const order = [
      'inst:ask:language',
      'inst:ask:keyboard',
      'inst:drive',
      'inst:ask:user',
      'inst:ask:password',
      'inst:run',
    ];
    for (const [i, key] of order.slice(1).entries())
      expect([key, before(asking, order[i] ?? '', key)]).toEqual([key, true]);
    for (const line of ['first:language', 'first:keyboard', 'first:user', 'first:password'])
      expect(keys(asking)).not.toContain(line);
    expect(keys(whole)).toContain('first:language');
  });

  it('wants the address settled before it asks for it', () => {
    expect(plan(asking).unmet).toEqual([]);
    expect(before(asking, 'net:free:host-film', 'inst:ask:address')).toBe(true);
    const none = { ...asking, hosts: asking.hosts.filter((h) => h.boxId !== film) };
    expect(plan(none).unmet.map((u) => u.must.code)).toEqual(['address is settled']);
  });

  it('is kept where it was noted', () => {
    const act = doneStep(asking, boxIn(asking, film), stepOf(asking, 'inst:ask:language'), 'Dutch', stamp());
    expect(boxIn(done(asking, act), film).first?.set.language).toBe('Dutch');
    const word = doneStep(
      asking,
      boxIn(asking, film),
      stepOf(asking, 'inst:ask:password'),
      'secret',
      stamp(),
    );
    expect(JSON.stringify(boxIn(done(asking, word), film).first)).not.toContain('secret');
  });
});

describe('a suggested drive', () => {
  const one = withStore(change(whole, { layout: null }), 'loose-480', { in: 'tern' });

  it('is nothing until it is chosen', () => {
    expect(laidBox(one, boxIn(one, film))).toMatchObject({ suggested: true, drive: { id: 'loose-480' } });
    expect(hazards(one, boxIn(one, film)).map((h) => [h.code, h.grade])).toContainEqual([
      'system drive suggested',
      'stop',
    ]);
    expect(endOf(one, 'loose-480').installed).toBeNull();
    expect(plan(one).goals[0]?.lack?.code).toBe('system drive not decided');
  });

  it('is chosen by the act that chooses the system, where there is no other', () => {
    const machine = findMachine(one, 'tern');
    const profile = findProfile(one, 'curtain-player');
    if (!machine || !profile) throw new Error('not there');
    const judged = judgeAll(one, machine, 'film').find((j) => j.profileId === profile.id);
    if (!judged) throw new Error('not judged');
    const chosen = done(one, chooseProfile(one, boxIn(one, film), profile, judged, stamp()));
    expect(boxIn(chosen, film).layout?.driveId).toBe('loose-480');
    expect(laidBox(chosen, boxIn(chosen, film)).suggested).toBe(false);
  });
});

describe('the rehearsal', () => {
  it('starts from what the system is, where its image was not read', () => {
    const drive = (bench: Bench) => {
      const made = boxPlan(bench, boxIn(bench, film));
      if ('code' in made) throw new Error(made.code);
      return made.plan.drives.find((d) => d.role === 'installer');
    };
    const as = (to: object): Bench => ({
      ...whole,
      profiles: whole.profiles.map((p) => (p.id === 'curtain-player' ? { ...p, ...to } : p)),
    });
    const profile = findProfile(whole, 'curtain-player');
    if (!profile) throw new Error('no profile');
    expect(drive(as({ needs: { ...profile.needs, firmware: ['bios'] } }))?.starts).toEqual({
      uefi: null,
      bios: 'the installer',
    });
    expect(drive(as({ secureBoot: 'must be off' }))?.signed).toBe(false);
    const arm = as({ releases: profile.releases.map((r) => ({ ...r, archs: ['aarch64'], cpuLevel: null })) });
    expect(drive(arm)?.starts).toEqual({ uefi: null, bios: null });
  });
});

describe('what was measured and what was said', () => {
  it('a write that was measured leaves the content unknown when its record is taken back', () => {
    const act = recordWrite(
      whole,
      boxIn(whole, film),
      {
        imageId: 'none',
        imageName: 'none.img',
        serial: stick.serial ?? '',
        bytes: 1e9,
        touched: true,
        seconds: 60,
        writeSeconds: 50,
        predicted: null,
        result: 'proven',
        explanation: '',
        realBytes: null,
        target: null,
      },
      stamp(),
    );
    const written = done(whole, act);
    const back = applyChanges(written, [...theBench.inverse(whole, act.changes), ...(act.leaves ?? [])]);
    expect(store(written, stick.id).wholeImage?.imageId).toBe('none');
    expect(store(back, stick.id)).toMatchObject({ content: null, fate: 'not decided', wholeImage: null });
    expect(boxIn(back, film).written).toBeNull();
  });

  it('a setting that a person has changed is known, and the log keeps what it was', () => {
    const tern = findMachine(whole, 'tern');
    if (!tern) throw new Error('no tern');
    const act = settingChanged(tern, 'firmware.secureBoot', 'on', { id: film }, stamp());
    const after = done(whole, act);
    const machine = findMachine(after, 'tern');
    expect(machine && knownFact(machine, 'firmware.secureBoot')?.value).toBe('on');
    expect(after.log.find((l) => l.kind === 'setting' && l.boxId === film)).toMatchObject({ to: 'on' });
    expect(buildSheet(after, boxIn(after, film))).toMatch(/## Settings/);
  });

  it('the build sheet ticks a precaution whose step was done, and no other', () => {
    const taken = done(whole, takePrecautions(boxIn(whole, film), ['unplug:tern-ssd', 'stick out'], ''));
    const out = doneStep(taken, boxIn(taken, film), stepOf(taken, 'open:out:tern-ssd'), '', stamp());
    const sheet = buildSheet(done(taken, out), boxIn(done(taken, out), film));
    const lines = sheet.split('\n').filter((l) => /^- \[[ x]\]/.test(l) && /Scans drive|stick/i.test(l));
    expect(lines.filter((l) => l.startsWith('- [x]'))).toHaveLength(1);
    expect(lines.find((l) => l.startsWith('- [x]'))).toMatch(/Scans drive/);
  });
});

describe('times that are learned from', () => {
  const tick = (at: number, seconds: number, high = 100) => ({
    at: new Date(Date.parse('2026-06-01T09:00:00.000Z') + at * 1000).toISOString(),
    seconds,
    range: { high },
  });

  it('leaves out ticks made in a row, and steps that were left lying', () => {
    expect(credible([tick(0, 60), tick(60, 60), tick(120, 5000)])).toEqual([null, null, 'away']);
    expect(credible([tick(0, 3), tick(4, 4), tick(9, 5), tick(300, 60)])).toEqual([
      'in a row',
      'in a row',
      'in a row',
      null,
    ]);
    // Two quick ones may be two quick steps.
    expect(credible([tick(0, 3), tick(4, 4), tick(300, 60)])).toEqual([null, null, null]);
  });

  it('learns nothing from a sheet that was ticked from memory', () => {
    let bench = whole;
    for (let i = 0; i < 6; i += 1) {
      const { next } = runSheetOf(bench, boxIn(bench, film));
      if (!next) break;
      clock -= 57_000;
      bench = done(bench, doneStep(bench, boxIn(bench, film), next, '', stamp()));
    }
    const mine = timedSteps(bench).filter((s) => s.boxId === film);
    expect(mine.length).toBeGreaterThan(3);
    expect(mine.every((s) => s.leftOut === 'in a row')).toBe(true);
  });
});

describe('power', () => {
  it('no button is pressed while a battery is connected', () => {
    for (const box of hall.boxes) {
      const opening = openingOf(hall, box);
      if ('code' in opening) continue;
      const machine = findMachine(hall, box.machineId);
      const off = opening.steps.find((s) => s.what.code === 'unplug the mains');
      if (!off || !machine) continue;
      const portable = machine.form === 'laptop' || machine.form === 'handheld';
      expect([box.name, /then press the power button/.test(openingStepWords(off.what).title)]).toEqual([
        box.name,
        !portable,
      ]);
    }
    expect(openingStepWords({ code: 'unplug the mains', supply: 'battery' }).title).not.toMatch(
      /power button/,
    );
  });
});

it('a step that is skipped changes nothing in the plan', () => {
  const act = leaveStep(boxIn(whole, film), stepOf(whole, 'inst:run'), 'later', stamp());
  const skipped = done(whole, act);
  expect(endOf(skipped, 'loose-480').installed).toBeNull();
  expect(plan(skipped).reaches).toBe(false);
});

it('a stick that was written elsewhere holds its image by word, for every build, until it is compared', () => {
  const image = readImageItem('small.img', {
    bytes: 1e9,
  } as unknown as Parameters<typeof readImageItem>[1]);
  const has = change(
    { ...whole, items: [...whole.items, { ...image, inspection: null }] },
    { imageId: image.id },
  );
  const act = doneStep(has, boxIn(has, film), stepOf(has, 'write:write'), '', stamp());
  const written = done(has, act);
  expect(boxIn(written, film).written).toMatchObject({
    result: 'by word',
    imageId: image.id,
    serial: stick.serial,
  });
  expect(store(written, stick.id).wholeImage).toMatchObject({ by: 'word', boxId: film });
  expect(stepOf(written, 'start:stick').must.find((m) => m.code === 'stick is proven')?.holds).toBeNull();
  const headline = writeHeadline(written, boxIn(written, film), { ...image, inspection: null }, 0);
  expect(headline).toMatch(/by your word: not compared/);
});
