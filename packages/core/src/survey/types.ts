import type { FactKey, FactValue } from '../schema/facts';
import type { NetworkPort } from '../schema/shelf';

export interface SurveyedFact {
  value: FactValue;
  /** The line of the report the value was read from, with its section. */
  source: string;
}

export interface SurveyedDrive {
  name: string;
  bytes: number;
  serial: string | null;
  model: string | null;
  transport: string | null;
  rotational: boolean | null;
  removable: boolean;
  /** File systems and labels found on it, in words; empty where none is reported. */
  holds: string;
}

export interface Survey {
  facts: Partial<Record<FactKey, SurveyedFact>>;
  drives: SurveyedDrive[];
  networkPorts: NetworkPort[];
  /** What could not be read, each with the reason. */
  missing: string[];
}
