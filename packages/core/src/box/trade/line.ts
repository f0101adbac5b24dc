import type { ChainLoaderPlan } from '../../system/chainLoader';
import type { ConsoleSpeed } from '../../system/consoleClass';
import type { Span } from '../../units/duration';
import type { WriteWay } from '../../write/way';

/** One way of a school, with its minutes and what it wants. Seconds. */
export interface SchoolWay {
  way: WriteWay;
  seconds: Span | undefined;
  /** What it wants and the shelf does not have. */
  lacks: 'adapter' | 'stick' | 'running system' | null;
  usual: boolean;
}

/** A line of the trade at a stop: what people who do this often look at, as data; words/trade.ts says it. Bytes, seconds. */
export type TradeLine =
  /** Up to which consoles the machine plays at full speed; undefined where nothing tells. */
  | { code: 'console speed'; machine: string; speed: ConsoleSpeed | undefined }
  /** A release before the chosen one, and the image of it on the shelf. */
  | { code: 'earlier release'; system: string; version: string; image: string | null }
  | { code: 'new drive is quicker'; drive: string; why: 'card' | 'turning' | 'worn'; old: Span; fresh: Span }
  | { code: 'bays not counted'; machine: string; drives: number }
  | { code: 'name the target'; stick: string; label: string }
  | { code: 'unplug what stays'; drives: string[] }
  | { code: 'target is large'; stick: string; bytes: number; needs: number }
  | {
      code: 'school: stick or adapter';
      drive: string;
      driveId: string;
      ways: SchoolWay[];
      /** The way that was decided on; null where none was. */
      taken: SchoolWay['way'] | null;
    }
  | { code: 'write settings down'; machine: string }
  | { code: 'firmware update'; machine: string; date: string | null }
  | { code: 'graphics memory'; machine: string }
  | { code: 'lanes not split'; machine: string; known: boolean; drives: number }
  | {
      code: 'installed in another mode';
      drive: string;
      title: string;
      installed: 'uefi' | 'bios';
      present: 'uefi' | 'bios';
    }
  | { code: 'two sticks'; from: string; to: string }
  | { code: 'erases unasked'; system: string }
  | { code: 'asks several times'; system: string; times: number }
  | { code: 'network while installing'; system: string; wired: number | null }
  | { code: 'processor asked again'; system: string; arch: string | null }
  | { code: 'basic graphics'; system: string }
  | { code: 'works over a console'; system: string; machine: string }
  | { code: 'restarts by itself'; system: string }
  | { code: 'loader not seen'; system: string }
  /** Several sockets look alike: which is which is found by moving one wire. */
  | { code: 'one wire at a time'; machine: string; ports: number }
  /** What the work wants, in Mb/s, the least cable that carries it, and what the port does where that is known. */
  | { code: 'cable and port'; machine: string; wants: number; cable: string; port: number | null }
  | { code: 'chain loader'; machine: string; plan: ChainLoaderPlan };
/** What a line of the trade is about. */
export type TradeCode = TradeLine['code'];
