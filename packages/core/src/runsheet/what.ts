import type { CauseCode } from '../diagnose/causes';
import type { FirstLineCode, FirstWhy } from '../firststart/line';
import type { GatherLine, GatherThing } from '../gather/line';
import type { LayoutStep } from '../layout/steps';
import type { Supply } from '../machine/power';
import type { FactKey } from '../model/facts';
import type { InstallerQuestion } from '../model/installer';
import type { MoveStep } from '../model/moving';
import type { OpeningWhat } from '../opening/forBox';
import type { PoolStep } from '../storage/commands';
import type { Repair } from '../system/repairs';

/** Settings of firmware that a run sheet changes. */
export const settingNames = [
  'Secure Boot',
  'boot mode',
  'boot order',
  'graphics memory',
  'after a power cut',
  'halt on errors',
  'virtualisation',
  'port of a drive',
] as const;
/** One of them. */
export type SettingName = (typeof settingNames)[number];

/** By what a person tells the right drive in an installer’s list. */
export type ToldBy = 'serial' | 'label' | 'what the list shows';

/** What is done in a step, as data; words/runsheet says it. Sizes in bytes, names as the bench has them. */
export type StepWhat =
  // Survey, choose
  | { code: 'read the machine'; machine: string }
  | { code: 'look a fact up'; fact: FactKey }
  | { code: 'choose a system'; machine: string }
  | { code: 'decide a drive'; drive: string; serial: string | null; holds: string }
  | { code: 'say which drive'; drives: string[] }
  // Gather
  | { code: 'lay out'; group: GatherLine['group']; things: GatherThing[] }
  | { code: 'mend'; repair: Repair }
  | { code: 'fetch drivers'; drivers: string[]; stick: string | null }
  // Verify
  | { code: 'fetch the image'; system: string; version: string; variant: string | null }
  | { code: 'compare the sum'; image: string; sha256: string | null }
  // Write
  | { code: 'copy away'; drive: string; bytes: number; serial: string | null }
  | { code: 'label the target'; drive: string; serial: string | null }
  | { code: 'unplug at the writer'; drives: string[] }
  | {
      code: 'write';
      image: string;
      bytes: number;
      onto: string;
      serial: string | null;
      /** A stick, a card, or the final drive in an adapter. */
      as: 'stick' | 'card' | 'drive';
      /** The line of the list is read aloud before yes. */
      read: boolean;
      /** By the system that its machine runs now. */
      inPlace: boolean;
    }
  | { code: 'make the chain stick'; stick: string; drive: string; seconds: number }
  // Opening
  | { code: 'open'; what: OpeningWhat; machine: string }
  // Firmware
  | { code: 'enter setup'; machine: string; key: string | null; form: string }
  | { code: 'set'; setting: SettingName; of: string | null; from: string | null; to: string }
  | { code: 'save and leave'; form: string }
  | { code: 'try the menu key'; key: string | null; form: string }
  // Install
  | { code: 'put away'; drive: string; serial: string | null }
  | { code: 'secure the power'; machine: string }
  | { code: 'wire in' }
  | {
      code: 'plug the medium in';
      medium: string;
      serial: string | null;
      kind: 'stick' | 'card' | 'drive';
      dock: boolean;
    }
  /** `others`: sticks and drives on USB that are in the machine as well. */
  | { code: 'stick in'; stick: string; serial: string | null; dock: boolean; others: string[] }
  | {
      code: 'start the stick';
      by: 'menu' | 'order';
      key: string | null;
      form: string;
      mode: 'uefi' | 'bios' | 'board' | null;
      stick: string;
      basicGraphics: boolean;
    }
  | { code: 'enrol the key' }
  | {
      code: 'choose the drive';
      choice: 'asks' | 'preselects' | 'unasked';
      drive: string;
      serial: string | null;
      bytes: number;
      model: string | null;
      by: ToldBy;
      read: boolean;
      /** Drives that must be kept and are in the machine. */
      kept: string[];
      alike: string[];
    }
  | { code: 'copy onto the drive'; drive: string; serial: string | null; bytes: number }
  | { code: 'lay the drive out'; steps: LayoutStep[] }
  | { code: 'say yes'; times: number; drive: string; serial: string | null; arch: string | null }
  /** `kept`: drives that must be kept and are in; `out`: others were taken out for it. */
  | { code: 'let it install'; system: string; staysWith: boolean; kept: string[]; out: boolean }
  | { code: 'stick out'; ends: 'asks for a restart' | 'restarts by itself' | 'powers off'; stick: string }
  | { code: 'put back'; drives: string[]; ports: string[]; supply: Supply }
  | { code: 'target first'; drive: string }
  | { code: 'order back' }
  | { code: 'chain stick in'; stick: string; serial: string | null }
  | { code: 'chain stick first'; stick: string }
  | { code: 'answer'; question: InstallerQuestion; value: string | null }
  // First start
  | { code: 'first start'; line: FirstLineCode; of: string | null; why: FirstWhy; set: string | null }
  // Network
  | { code: 'see that nobody answers'; address: string }
  | {
      code: 'reserve';
      host: string;
      hardware: string | null;
      address: string;
      network: string;
    }
  | {
      code: 'set by hand';
      host: string;
      address: string;
      bits: number | null;
      gateway: string | null;
      nameServers: string[];
    }
  | { code: 'see it come back'; address: string }
  | { code: 'open its page'; url: string; certificate: boolean }
  // Load
  | { code: 'pool'; step: PoolStep['code']; text: string; erases: boolean }
  | { code: 'share'; folder: string; path: string; protocols: string[] }
  | { code: 'try the share'; folder: string; path: string; protocols: string[]; host: string | null }
  | { code: 'bring the rules'; file: string; to: string | null }
  | { code: 'load the rules'; file: string; zones: number; permits: number; seconds: number }
  | { code: 'keep the rules'; file: string; seconds: number }
  | { code: 'try the rules'; promises: string[] }
  | { code: 'make a guest'; guest: string; memory: number; cores: number; disk: number }
  | { code: 'start the guest by itself'; guest: string; place: number; seconds: number }
  | { code: 'carry'; folder: string; bytes: number; files: number }
  | { code: 'move'; moving: string; step: MoveStep; from: string }
  | { code: 'copy of'; thing: string }
  // Tune
  | { code: 'measure'; question: string; runs: number; planned: number }
  // What looked different, and is mended before the step goes on
  | { code: 'cure'; cause: CauseCode }
  // Keep
  | { code: 'stick the label on'; box: string; lines: string[] }
  | { code: 'print the build sheet' }
  | { code: 'password on paper'; kept: string | null }
  | { code: 'keep the stick'; stick: string }
  | { code: 'note the end of support'; system: string; day: string };

/** What kind of step it is. */
export type StepCode = StepWhat['code'];
