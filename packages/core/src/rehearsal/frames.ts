import type { Ending } from './ending';

/** What can be seen of a drive in a frame. */
export type DriveLook =
  'away' | 'there' | 'starts' | 'taken' | 'written' | 'half written' | 'erased' | 'altered';

/** How the firmware comes to what it starts. */
export type StartedHow =
  | 'menu'
  | 'key missed'
  | 'dead line'
  | 'line does not start'
  | 'stick first'
  | 'power back'
  | 'restart'
  | 'later';

/** How the drive that is taken comes to be taken. */
export type TakenBy = 'first' | 'largest' | 'serial' | 'read' | 'label' | 'place' | 'preselected';

/** One state of the run, as data; words/rehearsal.ts says it. Drives by their id. */
export type FrameSaid =
  | { code: 'ready'; away: string[] }
  | { code: 'starts'; how: StartedHow; drive: string; mode: 'uefi' | 'bios' }
  | { code: 'nothing starts'; how: StartedHow }
  | { code: 'taken'; drive: string; by: TakenBy }
  | { code: 'cut'; when: 'before the table' | 'while copying' | 'before the loader' | 'before the restart' }
  | { code: 'stick out too early' }
  | { code: 'written'; drive: string; whole: boolean }
  | { code: 'loader'; drive: string; entry: boolean }
  | { code: 'stick'; out: boolean }
  | { code: 'put back'; drives: string[]; forgotten: boolean }
  | { code: 'end'; ending: Ending };

/** A frame of the reel: what happened, and every drive as it then is, in the order of the plan. */
export interface Frame {
  said: FrameSaid;
  looks: { drive: string; look: DriveLook }[];
}
