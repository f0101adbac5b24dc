import { readCpu } from './cpu';
import { readDrives } from './drives';
import { noDetails } from '../model/details';
import { readBootEntries, readDisplays, readLinks, readPci, readPorts, readPower, readSensors } from './body';
import { readHealths } from './health';
import { readModules } from './memory';
import { readFirmware, readGraphics, readMemory, readNetwork } from './rest';
import { splitSections } from './sections';
import type { Survey } from './types';

/** A survey that cannot be read; the message says what is wrong and what to do. */
export class SurveyError extends Error {
  override name = 'SurveyError';
}

/**
 * Reads the output of the survey script. Whatever part is there is used; what is missing is said. Throws SurveyError
 * only where the text holds no section at all, which means that it is something else.
 */
export function readSurvey(report: string): Survey {
  const sections = splitSections(report);
  if (sections.size === 0) {
    throw new SurveyError(
      'This is not a survey report: no “==== section ====” line is in it. Nothing was changed. Run the survey script and paste all it prints.',
    );
  }
  const survey: Survey = {
    facts: {},
    assumed: {},
    drives: [],
    networkPorts: [],
    details: noDetails(),
    missing: [],
  };
  readCpu(sections, survey);
  readMemory(sections, survey);
  readFirmware(sections, survey);
  readNetwork(sections, survey);
  readPci(sections.get('pci'), survey);
  readGraphics(sections, survey);
  readModules(sections.get('dmi'), survey);
  readHealths(sections.get('smart'), survey);
  readLinks(sections.get('pcie'), survey);
  readPorts(sections.get('ports'), survey);
  readBootEntries(sections.get('bootentries'), survey);
  readDrives(sections, survey);
  readDisplays(sections.get('displays'), survey);
  readPower(sections.get('power'), survey);
  readSensors(sections.get('sensors'), survey);
  if (!sections.has('end'))
    survey.missing.push('The report is cut off: its last line “==== end ====” is not there');
  return survey;
}
