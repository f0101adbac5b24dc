import { Box, HStack, Progress, Stack, Text } from '@chakra-ui/react';
import { useEffect } from 'react';
import { WAIT } from '@zb/core/practice/play';
import type { Panel, RigScreen } from '@zb/core/practice/scene';
import { partWords } from '@zb/core/words/practice/say';
import { capital } from '@zb/core/words/text';
import { Head } from '../../ui/Words';
import { Offers, Rows, type AtWork } from './Panels';

/** Keys of a keyboard by what they are called on a machine's note. */
const NAMED: Readonly<Record<string, string>> = { Delete: 'Del', Escape: 'Esc' };

/** Keys of the keyboard go to the machine while it listens for any. */
function useMachineKeys(screen: RigScreen, take: AtWork['take']): void {
  useEffect(() => {
    if (!take || !screen.offers.some((o) => o.key !== undefined)) return;
    const onKey = (e: KeyboardEvent): void => {
      const key = NAMED[e.key] ?? e.key;
      const hit = screen.offers.find((o) => o.key === key);
      if (!hit || e.ctrlKey || e.altKey || e.metaKey) return;
      e.preventDefault();
      e.stopPropagation();
      take(hit.act);
    };
    window.addEventListener('keydown', onKey, true);
    return () => window.removeEventListener('keydown', onKey, true);
  }, [screen, take]);
}

const DARK: ReadonlySet<RigScreen['manner']> = new Set(['dark', 'waking', 'working', 'unasked']);

/** How far a stretch of beats is: shown as time, without saying when a key counts. */
const Beats = ({ beat }: { beat: NonNullable<RigScreen['beat']> }) => (
  <Progress.Root
    value={(100 * beat.at) / beat.of}
    aria-label="Time that went by"

    alignSelf="stretch"
  >
    <Progress.Track>
      <Progress.Range />
    </Progress.Track>
  </Progress.Root>
);

/** What its screen shows. Of dark screens the words stand light on ink, as they would there. */
function Face({ screen, byHand, ...at }: AtWork & { screen: RigScreen; byHand: boolean }) {
  const dark = DARK.has(screen.manner);
  const offers = screen.offers.filter((o) => byHand || o.act.do !== WAIT.do);
  const letters = screen.manner === 'waking' ? offers.filter((o) => o.act.do !== WAIT.do) : [];
  return (
    <Stack gap="2">
      <Box
        role="group"
        aria-label="Screen of the machine"
        aria-live="polite"
        border="ink"
        bg={dark ? 'fg' : 'bg'}
        color={dark ? 'bg' : 'fg'}
        // Forced colours leave no dark screen: its words are theirs too.
        _forced={{ color: 'fg' }}
        padding="3"
        css={{ minHeight: '148px' }}
        display="flex"
        flexDirection="column"
        gap="2"
        {...(dark ? { justifyContent: 'center', alignItems: 'center', textAlign: 'center' as const } : {})}
      >
        {screen.lines.map((l, i) => (
          <Text key={i} textStyle={i === 0 ? 'strong' : undefined}>
            {partWords(at.exercise, l)}
          </Text>
        ))}
        {screen.beat && <Beats beat={screen.beat} />}
        {screen.rows.length > 0 && (
          <Rows rows={screen.rows} heads={screen.heads} label="On its screen" {...at} />
        )}
        {screen.manner !== 'waking' && !dark && <Offers offers={offers} {...at} />}
      </Box>
      {letters.length > 0 && (
        <Stack gap="1" role="group" aria-label="Keys of the machine">
          <Offers offers={letters} {...at} />
        </Stack>
      )}
      {(dark || screen.manner === 'waking') && (
        <Offers offers={offers.filter((o) => !letters.includes(o))} {...at} />
      )}
    </Stack>
  );
}

/** A simulated machine: its light, its power button and its screen. */
export function MachinePanel({
  panel,
  byHand,
  ...at
}: AtWork & { panel: Extract<Panel, { kind: 'machine' }>; byHand: boolean }) {
  useMachineKeys(panel.screen, at.take);
  return (
    <Stack as="section" aria-label={panel.name} gap="2">
      <HStack justifyContent="space-between" gap="3" flexWrap="wrap">
        <Head>
          {capital(panel.name)}, {panel.on ? 'on' : 'off'}
        </Head>
        <Offers offers={panel.offers} {...at} />
      </HStack>
      <Face screen={panel.screen} byHand={byHand} {...at} />
    </Stack>
  );
}
