import fc from 'fast-check';
import { addPhoto, applySurvey, assumeUsual, blankMachine, removePhoto } from '@zb/core/acts/shelf';
import { saltmarshHall } from '@zb/core/demo/saltmarsh';
import { judge } from '@zb/core/system/judge';
import { knownFact } from '@zb/core/model/known';
import { machineView } from '@zb/core/system/view';
import { emptyBench, findMachine, machinesOf, photosOf, storesOf, type Bench } from '@zb/core/model/bench';
import { applyChanges, type Act } from '@zb/core/model/changes';
import { faultOf } from '@zb/core/model/fault';
import { machineForms } from '@zb/core/model/shelf';
import { compareSurvey } from '@zb/core/machine/compare';
import { EdidError, hexBytes, readEdid } from '@zb/core/formats/edid';
import { healthWords, readHealth } from '@zb/core/machine/health';
import { batteryOf } from '@zb/core/machine/power';
import { readSurvey } from '@zb/core/machine/read';
import { schematic } from '@zb/core/machine/schematic';
import { detailTables } from '@zb/core/machine/tables';
import { parseFact } from '@zb/core/machine/text';

const demo = saltmarshHall();
const stamp = { now: '2026-05-01T10:00:00.000Z', id: () => `id-${Math.random()}` };
const must = <T>(v: T | undefined | null): T => {
  if (v === undefined || v === null) throw new Error('missing');
  return v;
};
const after = (bench: Bench, act: Act): Bench => applyChanges(bench, act.changes);
const section = (name: string, text: string): string => `\n==== ${name} ====\n${text}\n`;
const read = (...sections: [string, string][]) =>
  readSurvey(sections.map(([n, t]) => section(n, t)).join('') + section('end', ''));

describe('a battery', () => {
  const at = '2026-03-01T00:00:00.000Z';
  const said = (battery: boolean, wear?: object) =>
    batteryOf({
      facts: {
        'power.battery': { surveyed: { value: battery, source: 'power', at } },
        ...(wear === undefined ? {} : { 'power.wear': wear }),
      },
    });
  const surveyed = (value: number) => ({ surveyed: { value, source: 'power', at } });
  it('is relied on in a power cut only where its capacity was measured and is not worn', () => {
    expect(said(false, surveyed(95))).toBe('none');
    expect(said(true)).toBe('not measured');
    expect(said(true, { assumed: { value: 95, because: 'usual' } })).toBe('not measured');
    expect(said(true, { entered: { value: 80, at } })).toBe('carries it');
    expect([59, 60].map((v) => said(true, surveyed(v)))).toEqual(['weak', 'carries it']);
  });
});

describe('sections of a survey beyond the first', () => {
  // The form of these texts is that of the tools and of sysfs, from memory; the oracle tests run the tools themselves.
  // Linux kernel, Documentation/ABI/testing/sysfs-class-power: energy in µWh, charge in µAh, voltage in µV.
  it('batteries in watt-hours, from energy and from charge with its voltage', () => {
    const survey = read([
      'power',
      [
        'type=Battery name=BAT0',
        ' energy_full_design=56000000',
        ' energy_full=21300000',
        ' cycle_count=611',
        'type=Mains name=AC',
        'type=Battery name=BAT1',
        ' charge_full_design=3000000',
        ' charge_full=2400000',
        ' voltage_min_design=7700000',
      ].join('\n'),
    ]);
    expect(survey.details.batteries).toEqual([
      { name: 'BAT0', designWh: 56, fullWh: 21.3, cycles: 611 },
      { name: 'BAT1', designWh: expect.closeTo(23.1, 6), fullWh: expect.closeTo(18.48, 6), cycles: null },
    ]);
    expect(survey.facts['power.wear']?.value).toBe(38);
    const table = must(detailTables(survey.details).find((t) => t.title === 'Batteries'));
    expect(table.lines[0]).toMatchObject({ grade: 'check', is: expect.stringMatching(/replace it/) });
  });

  // UEFI 2.10 §3.3: BootOrder names Boot#### entries; LOAD_OPTION_ACTIVE is bit 0 (§3.1.3).
  it('boot entries in the firmware’s order, with the active ones told', () => {
    const survey = read([
      'bootentries',
      'BootCurrent: 0001\nBootNext: 0001\nTimeout: 1 seconds\nBootOrder: 0004,0001\nBoot0001* system\tHD(1,GPT,ab)/File(\\EFI\\BOOT\\BOOTX64.EFI)\nBoot0002  old stick\tUSB(1,0)\nBoot0004* network\tMAC(00)',
    ]);
    expect(
      survey.details.bootEntries.map((b) => [b.id, b.label, b.active, b.first, b.inOrder, b.next]),
    ).toEqual([
      ['0004', 'network', true, true, true, false],
      ['0001', 'system', true, false, true, true],
      ['0002', 'old stick', false, false, false, false],
    ]);
  });

  it('links, sensors and ports: a slow link is pointed out, a port count is only assumed', () => {
    const survey = read(
      [
        'pcie',
        '0000:01:00.0 class=0x010802 width=2 maxwidth=4 speed=8.0 maxspeed=8.0\n0000:02:00.0 class=0x060400 width=4 maxwidth=4 speed=8.0 maxspeed=8.0',
      ],
      ['sensors', 'fan 820 board: case fan\ntemp 41000 cpu: Package\nnonsense'],
      ['ports', 'ata=6'],
    );
    expect(survey.details.links).toHaveLength(1);
    expect(detailTables(survey.details).find((t) => t.title === 'PCIe links')?.lines[0]).toMatchObject({
      grade: 'check',
      is: expect.stringMatching(/×2 .*could do ×4/),
    });
    expect(survey.details.sensors.map((s) => [s.kind, s.value])).toEqual([
      ['fan', 820],
      ['temperature', 41],
    ]);
    expect(survey.facts['body.fan']?.value).toBe(true);
    expect([survey.facts['ports.sata'], survey.assumed['ports.sata']?.value]).toEqual([undefined, 6]);
  });

  // NVM Express Base Specification 2.0, SMART / Health Information log; ATA attributes by name: common practice, no source.
  it('drive health from ATA attributes and from the NVMe log, in words to act on', () => {
    const ata = must(
      readHealth('sda', {
        serial_number: 'SN-1',
        smart_status: { passed: true },
        power_on_time: { hours: 1200 },
        ata_smart_attributes: {
          table: [
            { id: 231, name: 'SSD_Life_Left', value: 25, raw: { value: 25 } },
            { id: 241, name: 'Total_LBAs_Written', value: 99, raw: { value: 4_000_000_000 } },
            { id: 5, name: 'Reallocated_Sector_Ct', value: 100, raw: { value: 0 } },
          ],
        },
      }),
    );
    expect(ata).toMatchObject({
      wearPercent: 75,
      writtenBytes: 2_048_000_000_000,
      badSectors: 0,
      hours: 1200,
    });
    // 2.048 TB wore 75 %: a third of that is left.
    expect(healthWords(ata).words).toMatch(/boot drive; not for the archive.*683 GB/);
    const nvme = must(
      readHealth('nvme0', {
        nvme_smart_health_information_log: { percentage_used: 3, data_units_written: 1000, media_errors: 0 },
        smart_status: { passed: true },
      }),
    );
    // NVMe Base Specification: a data unit is 1000 blocks of 512 bytes.
    expect(nvme).toMatchObject({ wearPercent: 3, writtenBytes: 512_000_000 });
    expect(healthWords(nvme).grade).toBe('good');
    expect(healthWords({ ...ata, passed: false }).grade).toBe('stop');
    expect(healthWords({ ...ata, badSectors: 4 }).words).toMatch(/not for the archive/);
    expect(readHealth('x', { smartctl: { exit_status: 2 } })).toBeUndefined();
    const survey = read([
      'smart',
      '---- sda\n{"serial_number":"SN-1","smart_status":{"passed":true}}\n---- sdb\n{ cut',
    ]);
    expect(survey.details.health.map((h) => h.name)).toEqual(['sda']);
  });

  // VESA E-EDID standard, release A revision 2, §3.
  it('displays: a built-in panel first, one that tells nothing is named, a wrong one does no harm', () => {
    const survey = read([
      'displays',
      'HDMI-A-1 status=connected edid=\neDP-1 status=connected edid=00ff\nDP-1 status=disconnected edid=\n',
    ]);
    expect(survey.missing.join('\n')).toMatch(/HDMI-A-1: connected, but it tells nothing/);
    expect(survey.missing.join('\n')).toMatch(/eDP-1: The EDID has 2 bytes/);
    expect(survey.facts['display.remote']?.value).toBe(false);
    expect(read(['displays', 'cec=cec0']).facts['display.remote']?.value).toBe(true);
    expect(() => hexBytes('zz')).toThrow(EdidError);
    fc.assert(
      fc.property(fc.uint8Array({ minLength: 0, maxLength: 400 }), (bytes) => {
        try {
          readEdid(bytes);
        } catch (error) {
          expect(error).toBeInstanceOf(EdidError);
        }
      }),
    );
  });

  // lscpu(1): “CPU op-mode(s)” is what the kernel in use allows.
  it('ARM widths: a 64-bit CPU under a 32-bit kernel is told apart from a 32-bit one', () => {
    expect(read(['machine', 'armv8l']).facts).toMatchObject({
      'cpu.arch': { value: 'aarch64' },
      'cpu.bits': { value: '64' },
    });
    expect(read(['machine', 'armv7l']).facts).toMatchObject({
      'cpu.arch': { value: 'armv7l' },
      'cpu.bits': { value: '32' },
    });
  });
});

// What kinds of machine usually have: common practice, no source.
describe('a machine known without a survey', () => {
  it.each(machineForms)('%s: what is usual is assumed, and decides nothing firmly', (form) => {
    const blank = blankMachine('Stranger', form, stamp);
    const bench = after(
      { ...emptyBench(), items: [blank], profiles: demo.profiles },
      assumeUsual(blank, form, true),
    );
    const machine = must(findMachine(bench, blank.id));
    expect(Object.values(machine.facts).length).toBeGreaterThan(6);
    for (const p of demo.profiles) {
      const judged = judge(machineView(bench, machine), p);
      expect(judged.verdict).toBe('cannot say yet');
      expect(judged.missing.length).toBeGreaterThan(0);
    }
  });

  it('corrections stay when the assumptions go; a survey puts facts over them', () => {
    const blank = blankMachine('Stranger', 'laptop', stamp);
    const assumed = after({ ...emptyBench(), items: [blank] }, assumeUsual(blank, 'laptop', true));
    const machine = must(findMachine(assumed, blank.id));
    expect(knownFact(machine, 'cpu.cores')).toMatchObject({ origin: 'assumed', value: 2 });
    const withOne = {
      ...machine,
      facts: {
        ...machine.facts,
        'cpu.cores': { ...machine.facts['cpu.cores'], entered: { value: 4, at: '' } },
      },
    };
    expect(knownFact(withOne, 'cpu.cores')).toMatchObject({ origin: 'entered', value: 4 });
    const without = must(findMachine(after(assumed, assumeUsual(withOne, 'laptop', false)), blank.id));
    expect(Object.keys(without.facts)).toEqual(['cpu.cores']);
    const survey = read(['meminfo', 'MemTotal: 1000 kB']);
    const surveyed = after(assumed, applySurvey(assumed, machine, survey, stamp, null));
    expect(knownFact(must(findMachine(surveyed, blank.id)), 'memory.bytes')).toMatchObject({
      origin: 'surveyed',
    });
  });

  // PCI Express M.2 specification: sizes by width and length in millimetres, keys B and M.
  it('M.2 slots are entered as people note them', () => {
    expect(parseFact('ports.m2', 'm 2280 nvme x4; B 2242 sata')).toEqual([
      'M 2280 nvme x4',
      'B 2242 sata x2',
    ]);
    expect(parseFact('ports.m2', 'none')).toEqual([]);
    expect(() => parseFact('ports.m2', 'a long one')).toThrow(/is not a slot/);
  });
});

describe('the machine sheet', () => {
  const clerk = must(findMachine(demo, 'clerk'));
  const report = (kib: number, free: number): string =>
    section('meminfo', `MemTotal: ${kib} kB`) +
    section(
      'dmi',
      ['DIMM 1', 'DIMM 2']
        .map(
          (l, i) =>
            `Memory Device\n\tSize: ${i < 2 - free ? '8 GB' : 'No Module Installed'}\n\tForm Factor: DIMM\n\tLocator: ${l}\n\tType: DDR4\n`,
        )
        .join('\n'),
    ) +
    section(
      'lsblk',
      JSON.stringify({
        blockdevices: [
          { name: 'sda', kname: 'sda', type: 'disk', size: 500e9, serial: 'NEW-0001', tran: 'sata' },
        ],
      }),
    ) +
    section('end', '');

  it('shows what a new survey changes: “8 GiB → 16 GiB, one slot now used”, drives by serial, hand-entered values kept', () => {
    const first = after(demo, applySurvey(demo, clerk, readSurvey(report(8388608, 1)), stamp, null));
    const machine = must(findMachine(first, 'clerk'));
    const changes = compareSurvey(first, machine, readSurvey(report(16777216, 0)));
    const of = (what: string) => changes.find((c) => c.what === what);
    expect(of('Memory the system sees')).toMatchObject({ was: '8.00 GiB', now: '16.0 GiB' });
    expect(of('Memory slots')?.now).toBe('one slot now used');
    expect(
      compareSurvey(first, machine, readSurvey(report(8388608, 1))).filter(
        (c) => !c.what.startsWith('Drive …'),
      ),
    ).toEqual([]);
    const drives = compareSurvey(demo, clerk, readSurvey(report(8388608, 1))).filter((c) =>
      c.what.startsWith('Drive …'),
    );
    expect(drives.map((d) => d.what).sort()).toEqual(['Drive …0001', 'Drive …90BD']);
    const again = after(first, applySurvey(first, machine, readSurvey(report(16777216, 0)), stamp, null));
    expect(must(again.log.at(-1)).text).toMatch(/8\.00 GiB → 16\.0 GiB/);
  });

  it('draws slots, ports and bays with what is in them', () => {
    const groups = schematic(demo, 'clerk');
    const of = (title: string) => must(groups.find((g) => g.title === title)).places;
    expect(of('Memory').map((p) => p.holds)).toEqual(['8.00 GiB DDR4', null]);
    expect(of('SATA').filter((p) => p.holds === null)).toHaveLength(1);
    expect(of('M.2')).toMatchObject([{ label: 'M 2280 nvme x4', holds: null }]);
    expect(schematic(demo, 'pebble').find((g) => g.title === 'Card')?.places[0]?.holds).toMatch(
      /Pebble’s card/,
    );
    expect(schematic(demo, 'nobody')).toEqual([]);
    // Every machine’s drives are all drawn.
    for (const m of machinesOf(demo)) {
      const drawn = schematic(demo, m.id).flatMap((g) => g.places.flatMap((p) => p.holds ?? []));
      for (const s of storesOf(demo).filter((x) => x.in === m.id && x.kind !== 'stick'))
        expect(drawn.some((d) => d.includes(s.name))).toBe(true);
    }
  });

  it('keeps photographs, and refuses what is no picture', () => {
    const withPhoto = after(demo, addPhoto(clerk, 'Label', 'data:image/jpeg;base64,AA', stamp));
    const [photo] = photosOf(withPhoto, 'clerk');
    expect(photo?.caption).toBe('Label');
    expect(faultOf(addPhoto(clerk, 'Label', 'javascript:alert(1)', stamp), demo)).toMatch(/data/);
    const gone = after(withPhoto, removePhoto(must(photo).id));
    expect(photosOf(gone, 'clerk')).toEqual([]);
  });
});
