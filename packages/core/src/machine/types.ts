import type { Content } from '../model/content';
import type { Details } from '../model/details';
import type { FactKey, FactValue } from '../model/facts';
import type { Attachment } from '../model/medium';
import type { NetworkPort } from '../model/shelf';

/** A fact a survey found, and the command that told it. */
export interface SurveyedFact {
  value: FactValue;
  /** The line of the report the value was read from, with its section. */
  source: string;
}

/** What the report only hints at: shown, and never firm where it decides. */
export interface AssumedFact {
  value: FactValue;
  because: string;
}

/** A drive a survey found; bytes. */
export interface SurveyedDrive {
  name: string;
  bytes: number;
  serial: string | null;
  model: string | null;
  transport: string | null;
  rotational: boolean | null;
  /** Sector it writes as one, in bytes; null where it is neither 512 nor 4096 or not told. */
  sectorBytes: 512 | 4096 | null;
  /** It tells of overlapping tracks; null where it does not, which proves nothing. */
  shingled: true | null;
  removable: boolean;
  /** Its medium is one that is taken out, as flash sticks tell of themselves and drives in a case do not; null: not told. */
  removableMedium: boolean | null;
  /** Null where the report does not tell it. */
  attachment: Attachment | null;
  content: Content;
}

/** What a survey report says of a machine. */
export interface Survey {
  facts: Partial<Record<FactKey, SurveyedFact>>;
  assumed: Partial<Record<FactKey, AssumedFact>>;
  drives: SurveyedDrive[];
  networkPorts: NetworkPort[];
  details: Details;
  /** What could not be read, each with the reason. */
  missing: string[];
}
