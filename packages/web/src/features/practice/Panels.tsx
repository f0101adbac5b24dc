import { Box, HStack, Stack } from '@chakra-ui/react';
import type { PracticeAct } from '@zb/core/model/practice';
import type { Part } from '@zb/core/practice/said';
import type { DrawnDrive, Offer, Panel, Row } from '@zb/core/practice/scene';
import { formatSi } from '@zb/core/units/bytes';
import { capital } from '@zb/core/words/text';
import { offerWords, offerWordsInLine, partWords } from '@zb/core/words/practice/say';
import { DriveColumn } from '../../drawing/DriveColumn';
import type { Pattern } from '../../drawing/patterns';
import { Quiet } from '../../ui/Button';
import { VerdictMark } from '../../ui/Marks';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../ui/Words';

/** What every part of an exercise is given: whose words it speaks, and what to do with an act. */
export interface AtWork {
  exercise: string;
  /** Null where nothing can be done any more. */
  take: ((act: PracticeAct) => void) | null;
}

/** What can be done here. */
export function Offers({
  offers,
  inLine = false,
  exercise,
  take,
}: AtWork & { offers: readonly Offer[]; inLine?: boolean }) {
  if (!take || offers.length === 0) return null;
  return (
    <Acts gap="1">
      {offers.map((o) => (
        <Quiet
          key={`${o.act.do} ${o.act.on ?? ''}`}
          {...(inLine ? { size: 'sm' as const } : {})}
          onClick={() => take(o.act)}
          {...(inLine ? { 'aria-label': offerWords(exercise, o) } : {})}
        >
          {inLine ? offerWordsInLine(exercise, o) : offerWords(exercise, o)}
        </Quiet>
      ))}
    </Acts>
  );
}

/** Eight and eight digits of a digest, four times in a line, so that two can be laid one under the other. */
const DIGEST = /^([0-9a-f]{64})(?: {2}(.*))?$/;

/** A name, a figure or a sentence; a digest stands in groups, and the file it is of above it. */
function Shown({ exercise, part }: { exercise: string; part: Part }) {
  const text = partWords(exercise, part);
  const [, digest, file] = DIGEST.exec(text) ?? [];
  if (digest === undefined) return text;
  return (
    <Box css={{ minWidth: '36ch', maxWidth: '38ch', fontSize: '12px' }}>
      {file !== undefined && <Sub>{file}</Sub>}
      <Data>{digest.replace(/(.{8})(?=.)/g, '$1 ')}</Data>
    </Box>
  );
}

/** Lines with what can be done to each. */
export function Rows({
  rows,
  heads,
  label,
  ...at
}: AtWork & { rows: readonly Row[]; heads: readonly Part[]; label: string }) {
  const words = (p: Part): string => partWords(at.exercise, p);
  const acts = at.take !== null && rows.some((r) => r.offers.length > 0);
  return (
    <Ruled
      dense
      stacked
      label={label}
      heads={[...heads.map(words), ...(acts ? [{ words: 'What can be done', silent: true }] : [])]}
    >
      {rows.map((r) => (
        <Line key={r.id} here={r.here}>
          {r.cells.map((c, i) =>
            i === 0 ? (
              <LineHead key={i}>
                <Shown exercise={at.exercise} part={c} />
              </LineHead>
            ) : (
              <Cell key={i}>
                {r.mark !== undefined && i === r.cells.length - 1 ? (
                  <VerdictMark kind={r.mark}>{words(c)}</VerdictMark>
                ) : (
                  <Shown exercise={at.exercise} part={c} />
                )}
              </Cell>
            ),
          )}
          {acts && (
            <Cell>
              <Offers inLine offers={r.offers} {...at} />
            </Cell>
          )}
        </Line>
      ))}
    </Ruled>
  );
}

const PATTERN: Record<DrawnDrive['pattern'], Pattern> = {
  kept: 'part',
  erased: 'erased',
  new: 'new',
  free: 'gap',
};

/** Drives as they are drawn everywhere else, on one scale. */
function Drawn({ drives, exercise }: { drives: readonly DrawnDrive[]; exercise: string }) {
  const largest = Math.max(1, ...drives.map((d) => d.bytes));
  return (
    <HStack align="flex-start" gap="2" overflowX="auto" tabIndex={0} role="group" aria-label="Drives, drawn">
      {drives.map((d) => {
        const holds = partWords(exercise, d.holds) || 'nothing on it';
        return (
          <DriveColumn
            key={d.id}
            narrow={drives.length > 3}
            title={capital(d.name)}
            // Below a sixth nothing could be told apart any more.
            tall={Math.max(1 / 6, d.bytes / largest)}
            strata={[{ share: 1, pattern: PATTERN[d.pattern], word: holds }]}
            says={`${holds}, ${formatSi(d.bytes)}`}
          />
        );
      })}
    </HStack>
  );
}

/** A note, a table or drives. */
export function PanelView({ panel, ...at }: AtWork & { panel: Exclude<Panel, { kind: 'machine' }> }) {
  const title = partWords(at.exercise, panel.title);
  return (
    <Stack as="section" aria-label={title} gap="1.5">
      <Head>{title}</Head>
      {panel.kind === 'paper' && (
        <Box borderLeft="ink" paddingLeft="3">
          {panel.lines.map((l, i) => (
            <Box key={i} paddingBlock="0.5">
              <Shown exercise={at.exercise} part={l} />
            </Box>
          ))}
        </Box>
      )}
      {panel.kind === 'drives' && <Drawn drives={panel.drives} exercise={at.exercise} />}
      {panel.kind === 'table' && (
        <>
          {panel.rows.length > 0 && <Rows rows={panel.rows} heads={panel.heads} label={title} {...at} />}
          <Offers offers={panel.offers} {...at} />
        </>
      )}
    </Stack>
  );
}
