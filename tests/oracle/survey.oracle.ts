/** The survey script run live on this machine, under three shells: its facts against /proc, lsblk and the loader's own word. */
import { execFileSync } from 'node:child_process';
import {
  chmodSync,
  existsSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs';
import { SURVEY_SCRIPT } from '@zb/core/machine/script';
import { readSurvey } from '@zb/core/machine/read';
import { run, scratch } from './files';

const room = scratch();
afterAll(() => room.clear());
const script = room.path('survey.sh');
writeFileSync(script, SURVEY_SCRIPT);
const shells: [string, string[]][] = [
  ['sh', [script]],
  ['dash', [script]],
  ['busybox', ['sh', script]],
];
const report = run('sh', [script]);
const survey = readSurvey(report);

it.each(shells)('%s prints every section to the end', (shell, args) => {
  const out = run(shell, args);
  expect([...out.matchAll(/==== ([a-z0-9-]+) ====/g)].map((m) => m[1])).toEqual([
    'zb-survey',
    'machine',
    'lscpu',
    'cpuinfo',
    'topology',
    'meminfo',
    'dmi',
    'lsblk',
    'disks',
    'pci',
    'smart',
    'pcie',
    'ports',
    'firmware',
    'bootentries',
    'network',
    'graphics',
    'displays',
    'power',
    'sensors',
    'end',
  ]);
  expect(readSurvey(out).facts['cpu.level']?.value).toEqual(survey.facts['cpu.level']?.value);
});

it('memory agrees with /proc/meminfo', () => {
  const kib = Number(/MemTotal:\s+(\d+)/.exec(readFileSync('/proc/meminfo', 'utf8'))?.[1]);
  expect(survey.facts['memory.bytes']?.value).toBe(kib * 1024);
});

it('threads agree with /proc/cpuinfo, architecture with uname', () => {
  const processors = readFileSync('/proc/cpuinfo', 'utf8').match(/^processor/gm)?.length;
  expect(survey.facts['cpu.threads']?.value).toBe(processors);
  expect(survey.facts['cpu.arch']?.value).toBe(run('uname', ['-m']).trim());
});

it('the CPU level is the highest the dynamic loader supports here', () => {
  const help = run('/lib64/ld-linux-x86-64.so.2', ['--help']);
  const supported = [...help.matchAll(/x86-64-(v[234]) \(supported/g)].map((m) => m[1] ?? '').sort();
  expect(survey.facts['cpu.level']?.value).toBe(supported[supported.length - 1] ?? 'v1');
});

it('drives agree with lsblk', () => {
  const rows = run('lsblk', ['-d', '-b', '-n', '-o', 'KNAME,SIZE,TYPE'])
    .trim()
    .split('\n')
    .map((l) => l.trim().split(/\s+/));
  const disks = rows.filter(
    ([name, size, type]) => type === 'disk' && Number(size) > 0 && !/^(zram|ram|loop|fd)\d/.test(name ?? ''),
  );
  expect(survey.drives.map((d) => [d.name, String(d.bytes)])).toEqual(
    disks.map(([name, size]) => [name, size]),
  );
});

it('firmware mode agrees with /sys, network with /sys/class/net', () => {
  expect(survey.facts['firmware.mode']?.value).toBe(existsSync('/sys/firmware/efi') ? 'uefi' : 'bios');
  const ports = readdirSync('/sys/class/net').filter((n) => existsSync(`/sys/class/net/${n}/device`));
  expect(survey.networkPorts.map((p) => p.name).sort()).toEqual(ports.sort());
});

it('leaves no trace: runs where nothing can be written', () => {
  const empty = mkdtempSync(room.path('cwd-'));
  execFileSync('sh', [script], { cwd: empty, encoding: 'utf8' });
  expect(readdirSync(empty)).toEqual([]);
});

it('with no optional tool it still tells what /proc and /sys tell, and says what is missing', () => {
  const bin = mkdtempSync(room.path('bin-'));
  for (const tool of ['uname', 'readlink'])
    symlinkSync(run('sh', ['-c', `command -v ${tool}`]).trim(), `${bin}/${tool}`);
  const out = execFileSync('/bin/dash', [script], { encoding: 'utf8', env: { PATH: bin } });
  const bare = readSurvey(out);
  expect(bare.facts['memory.bytes']?.value).toBe(survey.facts['memory.bytes']?.value);
  expect(bare.facts['cpu.level']?.value).toBe(survey.facts['cpu.level']?.value);
  expect(bare.missing.join('\n')).toMatch(/Drives: no readable lsblk/);
});

it('says the same as root and as an ordinary user, but for what only root may read', () => {
  // An ordinary user who runs the tests has only the one side to show.
  const root = process.getuid?.() === 0;
  chmodSync(room.dir, 0o755);
  chmodSync(script, 0o644);
  const asNobody = ['--reuid=65534', '--regid=65534', '--clear-groups', 'sh', script];
  const plain = readSurvey(root ? run('setpriv', asNobody) : run('sh', [script]));
  const onlyRoot = /^memory\.(slots|free|type|form|max)$/;
  for (const [key, fact] of Object.entries(survey.facts))
    if (!onlyRoot.test(key)) expect([key, plain.facts[key as 'cpu.arch']?.value]).toEqual([key, fact.value]);
  expect(plain.drives.map((d) => [d.name, d.bytes])).toEqual(survey.drives.map((d) => [d.name, d.bytes]));
});

it('threads, clock and ciphers agree with lscpu’s own table', () => {
  const table = run('lscpu', []);
  const row = (name: string): string | undefined =>
    new RegExp(`^\\s*${name}:\\s+(.*)$`, 'm').exec(table)?.[1];
  expect(survey.facts['cpu.threads']?.value).toBe(Number(row('CPU\\(s\\)')));
  expect(survey.facts['cpu.aes']?.value).toBe(/\baes\b/.test(row('Flags') ?? ''));
  expect(survey.facts['cpu.model']?.value).toBe(row('Model name'));
  const most = row('CPU max MHz');
  if (most) expect(survey.facts['cpu.mhz']?.value).toBe(Math.round(Number(most)));
});

it('ports, links, batteries and sensors agree with /sys', () => {
  const list = (path: string): string[] => (existsSync(path) ? readdirSync(path) : []);
  const ata = list('/sys/class/ata_port').length;
  expect(survey.assumed['ports.sata']?.value ?? 0).toBe(ata);
  const supplies = list('/sys/class/power_supply').filter(
    (s) => readFileSync(`/sys/class/power_supply/${s}/type`, 'utf8').trim() === 'Battery',
  );
  expect(survey.details.batteries.map((b) => b.name)).toEqual(supplies.sort());
  expect(survey.facts['power.battery']?.value).toBe(supplies.length > 0);
  const linked = list('/sys/bus/pci/devices').filter((d) =>
    existsSync(`/sys/bus/pci/devices/${d}/max_link_width`),
  );
  expect(survey.details.links.length).toBeLessThanOrEqual(linked.length);
  for (const l of survey.details.links) expect(linked).toContain(l.name);
});
