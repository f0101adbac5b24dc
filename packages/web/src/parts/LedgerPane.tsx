import { Box, HStack, Text } from '@chakra-ui/react';
import { lazy, Suspense, useState, type ReactNode } from 'react';
import type { LedgerLine } from '@zb/core/box/stopModule';
import type { Summary } from '@zb/core/box/summary';
import { hazardWords } from '@zb/core/words/hazard';
import { Word } from '../ui/Button';
import { Fold } from '../ui/Fold';
import { HazardMark } from '../ui/Marks';
import { usePhone } from '../ui/useMedia';
import { Data, Head, Soft } from '../ui/Words';
import { InBar } from './slots';

const Drawer = lazy(() => import('../ui/Drawer'));

export function LedgerGroup({
  title,
  count,
  children,
}: {
  title: string;
  count?: ReactNode;
  children: ReactNode;
}) {
  return (
    <Box as="section" aria-label={title}>
      <Head
        display="flex"
        justifyContent="space-between"
        borderBottom="firm"
        paddingBottom="0.5"
        marginBottom="1"
      >
        <span>{title}</span>
        <span>{count}</span>
      </Head>
      {children}
    </Box>
  );
}

/** The margin beside the sheet. On a phone it is a drawer, and how many Stops and Checks it holds stays in sight. */
export function LedgerAside({
  children,
  label = 'Ledger',
  stops = 0,
  checks = 0,
}: {
  children: ReactNode;
  label?: string;
  stops?: number;
  checks?: number;
}) {
  const phone = usePhone();
  const [open, setOpen] = useState(false);
  if (phone)
    return (
      <>
        <InBar slot="ledger">
          <Word onClick={() => setOpen(true)} minHeight="touch" textDecoration="none" paddingInline="2">
            {/* What is seen is part of what is heard, in the same order. */}
            {stops + checks > 0 ? (
              <Box as="span" srOnly>
                {label},{' '}
              </Box>
            ) : (
              label
            )}
            {stops > 0 && <HazardMark grade="stop" words={String(stops)} />}
            {stops > 0 && (
              <Box as="span" srOnly>
                {' '}
                Stop,{' '}
              </Box>
            )}
            {checks > 0 && <HazardMark grade="check" words={String(checks)} />}
            {checks > 0 && (
              <Box as="span" srOnly>
                {' '}
                Check
              </Box>
            )}
          </Word>
        </InBar>
        <Suspense fallback={null}>
          {open && (
            <Drawer open onClose={() => setOpen(false)} title={label} from="end">
              <Box display="flex" flexDirection="column" gap="3">
                {children}
              </Box>
            </Drawer>
          )}
        </Suspense>
      </>
    );
  return (
    <Box
      as="aside"
      aria-label={label}
      tabIndex={0}
      gridArea="ledger"
      bg="bg.margin"
      border="firm"
      borderBottom="none"
      borderRight="none"
      marginTop={{ lg: '3' }}
      paddingBlock="3"
      paddingInline="4"
      overflow="auto"
      overflowWrap="anywhere"
      display="flex"
      flexDirection="column"
      gap="3"
      minHeight="0"
      _print={{ display: 'none' }}
      css={{ fontSize: '13px' }}
    >
      {children}
    </Box>
  );
}

/** A name with its figure at the other end of the line. */
export const LedgerPair = ({ what, is, strong = false }: { what: string; is: string; strong?: boolean }) => (
  <Box display="flex" justifyContent="space-between" gap="3" fontWeight={strong ? 'strong' : 'normal'}>
    <span>{what}</span>
    <Data whiteSpace="nowrap">{is}</Data>
  </Box>
);

/** A figure that opens to where it came from. */
export const LedgerRow = ({ line }: { line: LedgerLine }) => (
  <Fold
    plain
    title={
      <>
        <span>{line.label}</span>
        <Data>{line.value}</Data>
      </>
    }
  >
    <Text textStyle="small" paddingBottom="1">
      {line.because}
    </Text>
  </Fold>
);

/** A hazard: how grave, and which. */
export const HazardLine = ({
  grade,
  children,
}: {
  grade: 'stop' | 'check' | 'note';
  children: ReactNode;
}) => (
  <HStack align="baseline" gap="2" paddingBlock="1" borderBottom="thin" _last={{ borderBottom: 'none' }}>
    <Box css={{ flex: '0 0 56px' }}>
      <HazardMark grade={grade} />
    </Box>
    <Box flex="1" minWidth="0">
      {children}
    </Box>
  </HStack>
);

/** The ledger of a box: all of it comes from core; this only sets it out. */
export function BoxLedger({ ledger, above }: { ledger: Summary; above?: ReactNode }) {
  const count = (g: string): number => ledger.hazards.filter((h) => h.grade === g).length;
  const [stops, checks, notes] = [count('stop'), count('check'), count('note')];
  return (
    <LedgerAside stops={stops} checks={checks}>
      {above}
      <LedgerGroup
        title="Hazards"
        count={<span title="Stop · Check · Note">{`${stops} · ${checks} · ${notes}`}</span>}
      >
        {ledger.hazards.length === 0 && <Soft>None known.</Soft>}
        {ledger.hazards.map((h) => (
          <HazardLine key={hazardWords(h)} grade={h.grade}>
            {hazardWords(h)}
          </HazardLine>
        ))}
      </LedgerGroup>
      <LedgerGroup title="Time to a finished box">
        {ledger.times.map((line) => (
          <LedgerRow key={line.label} line={line} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Bytes at risk">
        {ledger.bytesAtRisk.map((line) => (
          <LedgerRow key={line.label} line={line} />
        ))}
      </LedgerGroup>
      <LedgerGroup title="Open questions" count={ledger.questions.length}>
        {ledger.questions.length === 0 ? (
          <Soft>None.</Soft>
        ) : (
          ledger.questions.map((q) => <Text key={q}>{q}</Text>)
        )}
      </LedgerGroup>
    </LedgerAside>
  );
}
