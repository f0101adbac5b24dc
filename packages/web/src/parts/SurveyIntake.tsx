import { useMemo, useState } from 'react';
import { applySurvey } from '@zb/core/acts/shelf';
import type { Bench, Machine } from '@zb/core/model/bench';
import { compareSurvey } from '@zb/core/machine/compare';
import { readSurvey } from '@zb/core/machine/read';
import { SURVEY_FILE, SURVEY_SCRIPT } from '@zb/core/machine/script';
import type { Survey } from '@zb/core/machine/types';
import { download } from '../storage/download';
import { stamp, useAct } from '../storage/hooks';
import { Primary, Quiet } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { PickFile } from './PickFile';
import { readTextFile } from './textFile';
import { SurveyChanges } from './SurveyChanges';

/** Hands out the survey script and takes its output, pasted or opened. */
export function SurveyIntake({
  bench,
  machine,
  boxId,
  onDone,
}: {
  bench: Bench;
  machine: Machine;
  boxId: string | null;
  onDone?: () => void;
}) {
  const act = useAct();
  const [report, setReport] = useState('');
  const [problem, setProblem] = useState('');
  const [viewing, setViewing] = useState(false);
  const [copied, setCopied] = useState('');
  const lines = useMemo(() => SURVEY_SCRIPT.trimEnd().split('\n').length, []);
  const [waiting, setWaiting] = useState<Survey | null>(null);
  const keep = (survey: Survey): void => {
    void act(applySurvey(bench, machine, survey, stamp(), boxId));
    setReport('');
    setWaiting(null);
    onDone?.();
  };
  const take = (text: string): void => {
    try {
      const survey = readSurvey(text);
      setProblem('');
      // A machine surveyed before shows what changed first; a first survey has nothing to be held against.
      if (machine.surveyedAt === null) keep(survey);
      else setWaiting(survey);
    } catch (error) {
      setWaiting(null);
      setProblem(error instanceof Error ? error.message : String(error));
    }
  };
  const copy = (): void => {
    navigator.clipboard.writeText(SURVEY_SCRIPT).then(
      () => setCopied('Copied.'),
      () => setCopied('The browser did not allow copying; view the script and copy it there.'),
    );
  };
  if (waiting)
    return (
      <SurveyChanges
        changes={compareSurvey(bench, machine, waiting)}
        before={machine.surveyedAt ?? ''}
        onTake={() => keep(waiting)}
        onLeave={() => setWaiting(null)}
      />
    );
  return (
    <div className="two">
      <div className="stack" style={{ gap: 8 }}>
        <h2 className="h6">1. Run the script on {machine.name}</h2>
        <p>
          {lines} lines of plain <span className="m">sh</span>. It reads only, writes no file, needs no root
          and nothing installed.
        </p>
        <p className="m">sh {SURVEY_FILE} &gt; report.txt</p>
        <div className="actions">
          <Quiet onClick={() => setViewing(true)}>View</Quiet>
          <Quiet onClick={copy}>Copy</Quiet>
          <Quiet onClick={() => download(SURVEY_FILE, SURVEY_SCRIPT, 'text/x-shellscript')}>Download</Quiet>
        </div>
        <span role="status" className="sub">
          {copied}
        </span>
      </div>
      <div className="stack" style={{ gap: 8 }}>
        <label className="field">
          <span className="h6">2. Paste what it printed</span>
          <textarea
            className="in mono"
            value={report}
            rows={4}
            spellCheck={false}
            onChange={(e) => setReport(e.target.value)}
            placeholder="==== zb-survey ===="
          />
        </label>
        <div className="actions">
          <Primary onClick={() => take(report)} disabled={report.trim() === ''}>
            Read the report
          </Primary>
          <PickFile
            label="Open a report file"
            onFile={(f) => void readTextFile(f, 'report').then(take, (e: Error) => setProblem(e.message))}
          />
        </div>
        {problem !== '' && (
          <p className="said said-stop" role="alert">
            {problem}
          </p>
        )}
      </div>
      <Dialog open={viewing} onClose={() => setViewing(false)} title="The survey script" size="lg">
        <pre className="pre" tabIndex={0}>
          {SURVEY_SCRIPT}
        </pre>
      </Dialog>
    </div>
  );
}
