import type { FactKey, FactValue } from '@zb/core/model/facts';
import type { Survey } from '@zb/core/machine/types';

export interface SurveyOutput extends Omit<Survey, 'facts'> {
  facts: Partial<Record<FactKey, FactValue>>;
  /** The line each fact was read from. */
  sources: Partial<Record<FactKey, string>>;
}

/** Widths are numbers on the command line; everything else is as core gives it. */
export function surveyOutput(survey: Survey): SurveyOutput {
  const facts: SurveyOutput['facts'] = {};
  const sources: SurveyOutput['sources'] = {};
  for (const [key, fact] of Object.entries(survey.facts) as [
    FactKey,
    { value: FactValue; source: string },
  ][]) {
    facts[key] = key.endsWith('.bits') ? Number(fact.value) : fact.value;
    sources[key] = fact.source;
  }
  return {
    facts,
    sources,
    drives: survey.drives,
    networkPorts: survey.networkPorts,
    assumed: survey.assumed,
    details: survey.details,
    missing: survey.missing,
  };
}
