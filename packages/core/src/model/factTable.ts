/** The groups of the machine sheet, in the order a person inspects a machine. */
export const FACT_GROUPS = [
  'Processor',
  'Memory',
  'Ports and bays',
  'Graphics',
  'Display',
  'Network',
  'Firmware',
  'Power and noise',
] as const;
/** A group of the machine sheet. */
export type FactGroup = (typeof FACT_GROUPS)[number];

/** Whether memory modules carry check bits, and whether their signals are registered: three kinds that do not mix. */
export const memoryKinds = ['none', 'unbuffered', 'registered'] as const;

/** How a fact is shown, asked for and checked. */
export interface FactDefinition {
  label: string;
  group: FactGroup;
  /** `slots` is a list of M.2 slots, each such as “M 2280 nvme x4”. */
  kind: 'text' | 'count' | 'bytes' | 'flag' | 'list' | 'choice' | 'slots';
  choices?: readonly string[];
  /** The question a person can answer at the machine when the survey could not. */
  ask: string;
}

/** Every fact the application knows about a machine. Keys are stable: files and the command line use them. */
export const FACTS = {
  'cpu.arch': {
    label: 'Architecture',
    group: 'Processor',
    kind: 'choice',
    choices: ['x86_64', 'i686', 'aarch64', 'armv7l', 'riscv64'],
    ask: 'Which CPU architecture is it?',
  },
  'cpu.bits': {
    label: 'Width',
    group: 'Processor',
    kind: 'choice',
    choices: ['32', '64'],
    ask: 'Is the CPU 32- or 64-bit?',
  },
  'cpu.level': {
    label: 'x86-64 level',
    group: 'Processor',
    kind: 'choice',
    choices: ['v1', 'v2', 'v3', 'v4'],
    ask: 'Which x86-64 level does the CPU reach (v1–v4)?',
  },
  'cpu.arm32': {
    label: 'Runs 32-bit ARM systems',
    group: 'Processor',
    kind: 'flag',
    ask: 'Does it also start 32-bit systems (its maker’s page tells)?',
  },
  'cpu.model': { label: 'Model', group: 'Processor', kind: 'text', ask: 'What does the CPU call itself?' },
  'cpu.cores': { label: 'Cores', group: 'Processor', kind: 'count', ask: 'How many cores has it?' },
  'cpu.threads': {
    label: 'Threads',
    group: 'Processor',
    kind: 'count',
    ask: 'How many threads does it run?',
  },
  'cpu.virtualisation': {
    label: 'Virtualisation',
    group: 'Processor',
    kind: 'flag',
    ask: 'Can the CPU run virtual machines in hardware?',
  },
  'cpu.mhz': {
    label: 'Highest clock, MHz',
    group: 'Processor',
    kind: 'count',
    ask: 'What is the CPU’s highest clock in MHz?',
  },
  'cpu.aes': {
    label: 'Ciphers in hardware',
    group: 'Processor',
    kind: 'flag',
    ask: 'Does the CPU encrypt in hardware (AES)?',
  },
  'cpu.score': {
    label: 'Measured speed of one core',
    group: 'Processor',
    kind: 'count',
    ask: 'How fast is one core in a test of yours, where one of a 2013 office desktop is 100?',
  },
  'cpu.year': {
    label: 'Year of the CPU',
    group: 'Processor',
    kind: 'count',
    ask: 'From about which year is the CPU?',
  },
  'memory.bytes': {
    label: 'Memory the system sees',
    group: 'Memory',
    kind: 'bytes',
    ask: 'How much memory is in it?',
  },
  'memory.type': {
    label: 'Module type',
    group: 'Memory',
    kind: 'choice',
    choices: ['SDRAM', 'DDR', 'DDR2', 'DDR3', 'DDR3L', 'DDR4', 'DDR5', 'LPDDR'],
    ask: 'Which type of memory does it take (on the module’s label)?',
  },
  'memory.form': {
    label: 'Module form',
    group: 'Memory',
    kind: 'choice',
    choices: ['DIMM', 'SO-DIMM', 'soldered'],
    ask: 'Does it take long modules (DIMM), short ones (SO-DIMM), or is the memory soldered?',
  },
  'memory.slots': {
    label: 'Slots',
    group: 'Memory',
    kind: 'count',
    ask: 'How many memory slots has it?',
  },
  'memory.free': {
    label: 'Free slots',
    group: 'Memory',
    kind: 'count',
    ask: 'How many memory slots are free?',
  },
  'memory.max': {
    label: 'Most it takes',
    group: 'Memory',
    kind: 'bytes',
    ask: 'How much memory does it take at most?',
  },
  'memory.checked': {
    label: 'Modules with check bits',
    group: 'Memory',
    kind: 'choice',
    choices: memoryKinds,
    ask: 'Are its modules plain, with check bits (ECC), or registered?',
  },
  'firmware.mode': {
    label: 'Boot mode',
    group: 'Firmware',
    kind: 'choice',
    choices: ['uefi', 'bios', 'board'],
    ask: 'Does it start in UEFI or BIOS mode, or by a board’s own loader?',
  },
  'firmware.offers': {
    label: 'Modes it offers',
    group: 'Firmware',
    kind: 'list',
    choices: ['uefi', 'bios'],
    ask: 'Which boot modes does the setup screen offer (UEFI, BIOS or compatibility mode)?',
  },
  'firmware.triesEach': {
    label: 'BIOS tries every drive',
    group: 'Firmware',
    kind: 'flag',
    ask: 'When the first hard disk does not start, does BIOS go on to the next (does setup list every drive by its name)?',
  },
  'firmware.startsNvme': {
    label: 'Starts from NVMe',
    group: 'Firmware',
    kind: 'flag',
    ask: 'Does the firmware start from an NVMe drive (does setup list one as a start device)?',
  },
  'firmware.startsUsb': {
    label: 'Starts from USB',
    group: 'Firmware',
    kind: 'flag',
    ask: 'Does the firmware start from a USB stick?',
  },
  'firmware.startsCard': {
    label: 'Starts from its card reader',
    group: 'Firmware',
    kind: 'flag',
    ask: 'Does the firmware start from its card reader?',
  },
  'firmware.graphicsMemory': {
    label: 'Memory for graphics',
    group: 'Firmware',
    kind: 'choice',
    choices: ['automatic', 'fixed'],
    ask: 'Is the memory for graphics automatic or a fixed share in setup?',
  },
  'firmware.bits': {
    label: 'UEFI word size',
    group: 'Firmware',
    kind: 'choice',
    choices: ['32', '64'],
    ask: 'Is its UEFI 32- or 64-bit?',
  },
  'firmware.date': {
    label: 'Firmware date',
    group: 'Firmware',
    kind: 'text',
    ask: 'Which date does the firmware show?',
  },
  'firmware.secureBoot': {
    label: 'Secure Boot',
    group: 'Firmware',
    kind: 'choice',
    choices: ['on', 'off', 'absent'],
    ask: 'What does the setup screen say under Secure Boot?',
  },
  'firmware.order': {
    label: 'Boot order',
    group: 'Firmware',
    kind: 'list',
    choices: ['internal', 'usb', 'optical', 'network'],
    ask: 'In which order does it try things?',
  },
  'firmware.afterPowerCut': {
    label: 'After a power cut',
    group: 'Firmware',
    kind: 'choice',
    choices: ['on', 'as before', 'off'],
    ask: 'What does the machine do when power comes back after a cut (setup, under power)?',
  },
  'firmware.haltsOn': {
    label: 'Halts at start',
    group: 'Firmware',
    kind: 'choice',
    choices: ['nothing', 'missing keyboard or display'],
    ask: 'Does it halt at power-on where no keyboard or display is there?',
  },
  'firmware.splitsLanes': {
    label: 'Splits a slot’s lanes',
    group: 'Firmware',
    kind: 'flag',
    ask: 'Does setup offer to split the lanes of a slot, so that a card can hold several NVMe drives?',
  },
  'firmware.setupKey': {
    label: 'Setup key',
    group: 'Firmware',
    kind: 'text',
    ask: 'Which key opens setup at power-on?',
  },
  'firmware.menuKey': {
    label: 'One-time menu key',
    group: 'Firmware',
    kind: 'text',
    ask: 'Which key opens the one-time boot menu?',
  },
  'graphics.driver': {
    label: 'Kernel driver in use',
    group: 'Graphics',
    kind: 'text',
    ask: 'Which kernel driver runs the graphics?',
  },
  'graphics.family': {
    label: 'Driver family',
    group: 'Graphics',
    kind: 'choice',
    choices: ['in-kernel', 'out-of-tree', 'none'],
    ask: 'Does the graphics driver come with the kernel, from outside, or is there none?',
  },
  'network.wired': {
    label: 'Wired ports',
    group: 'Network',
    kind: 'count',
    ask: 'How many wired network ports has it?',
  },
  'network.wireless': {
    label: 'Wireless',
    group: 'Network',
    kind: 'count',
    ask: 'How many wireless adapters has it?',
  },
  'network.speed': {
    label: 'Fastest wired port, Mb/s',
    group: 'Network',
    kind: 'count',
    ask: 'How fast is its fastest wired port, in Mb/s?',
  },
  'ports.drives': {
    label: 'Drive ports',
    group: 'Ports and bays',
    kind: 'count',
    ask: 'How many drives can be connected inside (SATA and M.2 together)?',
  },
  'ports.sata': {
    label: 'SATA ports',
    group: 'Ports and bays',
    kind: 'count',
    ask: 'How many SATA ports has it, used ones included?',
  },
  'ports.m2': {
    label: 'M.2 slots',
    group: 'Ports and bays',
    kind: 'slots',
    ask: 'Which M.2 slots has it (key, length, protocol and lanes of each)?',
  },
  'ports.pcie': {
    label: 'Free expansion slots',
    group: 'Ports and bays',
    kind: 'count',
    ask: 'How many expansion-card slots are free?',
  },
  'ports.bays': {
    label: 'Free drive bays',
    group: 'Ports and bays',
    kind: 'count',
    ask: 'How many more drives of 2.5 or 3.5 inch have room inside?',
  },
  'power.sataLeads': {
    label: 'Free SATA power leads',
    group: 'Ports and bays',
    kind: 'count',
    ask: 'How many SATA power plugs of its supply are free?',
  },
  'ports.sataGeneration': {
    label: 'SATA generation',
    group: 'Ports and bays',
    kind: 'choice',
    choices: ['1', '2', '3'],
    ask: 'Of which SATA generation are its ports (1.5, 3 or 6 Gb/s; the board’s manual tells)?',
  },
  'ports.usb': {
    label: 'USB ports',
    group: 'Ports and bays',
    kind: 'count',
    ask: 'How many USB ports has it?',
  },
  'display.portrait': {
    label: 'Upright panel',
    group: 'Display',
    kind: 'flag',
    ask: 'Is the panel’s longer side upright?',
  },
  'display.native': {
    label: 'Native mode',
    group: 'Display',
    kind: 'text',
    ask: 'Which resolution is the display’s own?',
  },
  'display.size': {
    label: 'Panel size, mm',
    group: 'Display',
    kind: 'text',
    ask: 'How wide and high is the panel, in millimetres?',
  },
  'display.audio': {
    label: 'Sound over HDMI',
    group: 'Display',
    kind: 'flag',
    ask: 'Does the display take sound over HDMI?',
  },
  'display.remote': {
    label: 'HDMI remote-control line',
    group: 'Display',
    kind: 'flag',
    ask: 'Has its HDMI port the remote-control line?',
  },
  'power.battery': {
    label: 'Battery',
    group: 'Power and noise',
    kind: 'flag',
    ask: 'Does it have a battery?',
  },
  'power.wear': {
    label: 'Battery left of design, %',
    group: 'Power and noise',
    kind: 'count',
    ask: 'How much of its design capacity does the battery still hold, in per cent?',
  },
  'power.idle': {
    label: 'Watts, idle',
    group: 'Power and noise',
    kind: 'count',
    ask: 'How many watts does it draw when idle?',
  },
  'power.load': {
    label: 'Watts, under load',
    group: 'Power and noise',
    kind: 'count',
    ask: 'How many watts does it draw under load?',
  },
  'body.fan': {
    label: 'Fan',
    group: 'Power and noise',
    kind: 'flag',
    ask: 'Has it a fan?',
  },
  'body.noise': {
    label: 'Noise',
    group: 'Power and noise',
    kind: 'choice',
    choices: ['silent', 'quiet', 'audible', 'loud'],
    ask: 'How loud is it from two metres?',
  },
} as const satisfies Record<string, FactDefinition>;
