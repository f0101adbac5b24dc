import { Stack, Text } from '@chakra-ui/react';
import { useState } from 'react';
import { z } from 'zod';
import { shownOtherwise, takeInto } from '@zb/core/acts/network';
import type { Bench } from '@zb/core/model/bench';
import { blankNetwork, type Network } from '@zb/core/model/network';
import { LOOK_SCRIPT } from '@zb/core/network/look';
import { readNetworkText } from '@zb/core/network/read/read';
import { NetworkReadError, type NetworkReading } from '@zb/core/network/read/sighting';
import { networkReadWords, otherServerWords, readingWords } from '@zb/core/words/lan';
import { plural } from '@zb/core/words/text';
import { download } from '../storage/download';
import { stamp, useAct } from '../storage/hooks';
import { Primary, Quiet } from '../ui/Button';
import { Dialog } from '../ui/Dialog';
import { Lines } from '../ui/Input';
import { PickFile } from '../ui/PickFile';
import { Said } from '../ui/Said';
import { Acts, Data, Sub } from '../ui/Words';
import { checked } from './checked';
import { LanStandIn } from './LanStandIn';
import { readTextFile } from './textFile';
import { useDraftForm } from './useDraftForm';

const textSchema = z.object({
  text: z.string().refine((t) => t.trim() !== '', 'Paste what a tool printed first.'),
});

/** Takes what tools print of a network, pasted or opened: first what it holds is shown, then it is taken. */
export function LanRead({
  open,
  onClose,
  bench,
  network,
}: {
  open: boolean;
  onClose: () => void;
  bench: Bench;
  /** Null where there is none yet: one is made of what is read. */
  network: Network | null;
}) {
  const act = useAct();
  const [reading, setReading] = useState<NetworkReading | null>(null);
  const take = (text: string): boolean => {
    try {
      setReading(readNetworkText(text));
    } catch (error) {
      setReading(null);
      if (!(error instanceof NetworkReadError)) throw error;
      form.setError('text', { type: 'custom', message: networkReadWords(error.fault) });
    }
    return false;
  };
  const { form, submit, forget } = useDraftForm({
    values: { text: '' },
    resolver: checked(textSchema),
    draft: `network text ${network?.id ?? 'new'}`,
    ask: false,
    save: ({ text }) => take(text),
  });
  const close = (): void => {
    setReading(null);
    onClose();
  };
  const into = network ?? blankNetwork('new', 'Home');
  const preview =
    reading &&
    takeInto(bench, into, reading, reading.form, { now: new Date(0).toISOString(), id: () => 'preview' });
  const known = preview ? preview.taken.hosts.length - preview.taken.fresh.length : 0;
  const otherwise = reading ? shownOtherwise(bench, reading) : [];
  const keep = async (): Promise<void> => {
    if (!reading) return;
    const s = stamp();
    const target = network ?? blankNetwork(s.id(), 'Home');
    if (!(await act(takeInto(bench, target, reading, reading.form, s).act))) return;
    forget();
    close();
  };
  return (
    <Dialog open={open} onClose={close} title="What is there already" size="lg">
      <Stack gap="3">
        <Text>
          Paste what <Data>ip -j addr</Data>, <Data>ip -j route</Data>, <Data>ip -j neigh</Data> or{' '}
          <Data>arp -an</Data> prints, a lease file, <Data>/etc/hosts</Data>, or the list of the router’s
          page. Or run our look script on one machine: it only reads, and asks nobody you did not name.
        </Text>
        <form onSubmit={(e) => void submit(e)}>
          <Stack gap="2">
            <Lines
              label="What it printed"
              data
              rows={7}
              spellCheck={false}
              error={form.formState.errors.text?.message}
              {...form.register('text')}
            />
            <Acts>
              <Primary type="submit">See what it holds</Primary>
              <PickFile
                label="Open a file"
                onFile={(f) =>
                  void readTextFile(f, 'report').then(take, (e: Error) =>
                    form.setError('text', { type: 'custom', message: e.message }),
                  )
                }
              />
              <Quiet onClick={() => download('look.sh', LOOK_SCRIPT, 'text/x-shellscript')}>
                The look script
              </Quiet>
            </Acts>
          </Stack>
        </form>
        <LanStandIn
          onText={(text) => {
            form.setValue('text', text, { shouldDirty: true });
            take(text);
          }}
        />
        {reading && preview && (
          <>
            <Said
              kind={preview.taken.hosts.length === 0 && reading.prefixes.length === 0 ? 'check' : 'proven'}
            >
              {readingWords(reading)}. {plural(preview.taken.fresh.length, 'host')} new to you, {known} known
              {preview.taken.strangers.length > 0
                ? `, ${preview.taken.strangers.length} outside of ${into.prefix ?? 'this network'} and left alone`
                : ''}
              .
            </Said>
            {preview.taken.otherServers.length > 0 && (
              <Said kind="check">{otherServerWords(preview.taken.otherServers)}</Said>
            )}
            {preview.taken.guessed && (
              <Said kind="check">
                Nothing here tells how far the network reaches: it is taken to be{' '}
                {preview.taken.network.prefix}. What <Data>ip -j addr</Data> or <Data>ip -j route</Data>{' '}
                prints would tell it.
              </Said>
            )}
            {preview.taken.elsewhere.length > 0 && (
              <Said kind="check">
                {preview.taken.elsewhere
                  .flatMap((id) => bench.hosts.find((h) => h.id === id)?.name ?? [])
                  .join(', ')}{' '}
                answer somewhere else than you wrote down. What you wrote stays; where they were seen is kept
                beside it.
              </Said>
            )}
            {otherwise.map((o) => (
              <Said key={o.boxId + o.what} kind="stop">
                {bench.boxes.find((b) => b.id === o.boxId)?.name} shows another {o.what} than was noted:
                somebody else answers there, or it was made anew. Noted <Data>{o.noted.slice(0, 16)}…</Data>,
                shown <Data>{o.shown.slice(0, 16)}…</Data>. What was noted stays.
              </Said>
            ))}
            <Acts>
              <Primary onClick={() => void keep()}>Take it</Primary>
              <Sub>One act; it can be taken back.</Sub>
            </Acts>
          </>
        )}
      </Stack>
    </Dialog>
  );
}
