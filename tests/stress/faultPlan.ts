/** Which calls meet which fault. */
export interface FaultPlan {
  /** Names of calls ("open", "write", "rename" …). */
  calls: string[];
  /** Part of the path that is concerned. */
  where: string;
  /** How many of them go well first, and how many fail then. */
  skip: number;
  times: number;
  /** The file system's word for the fault. */
  code?: string;
  /** Only half of the bytes are taken or given. */
  short?: boolean;
  /** The file goes, and this stands where it was. */
  replaceBy?: 'nothing' | 'folder' | 'link';
}
export interface FaultReport {
  /** How many calls met a fault since the last report. */
  hits: number;
}
