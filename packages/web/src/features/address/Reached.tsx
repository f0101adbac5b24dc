import { Box, HStack, Stack } from '@chakra-ui/react';
import { noteReach } from '@zb/core/acts/network';
import type { Box as Build, Profile } from '@zb/core/model/bench';
import type { Host, Network } from '@zb/core/model/network';
import { noReach } from '@zb/core/model/reach';
import { knownHostsLines, pageOf } from '@zb/core/network/forBox';
import { formatDay } from '@zb/core/units/date';
import { hostKeyFingerprint } from '@zb/core/network/hostKey';
import { useQuery } from '@tanstack/react-query';
import { z } from 'zod';
import { checked } from '../../parts/checked';
import { useDraftForm } from '../../parts/useDraftForm';
import { saveDay } from '../../storage/calendar';
import { stamp, useAct } from '../../storage/hooks';
import { Quiet, Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Fold } from '../../ui/Fold';
import { Input } from '../../ui/Input';
import { Said } from '../../ui/Said';
import { Segments } from '../../ui/Segments';
import { Data, Head, Sub } from '../../ui/Words';

const SHELL = ['on', 'off', 'not there'] as const;

const pageSchema = z.object({
  fingerprint: z
    .string()
    .transform((t) => t.replace(/[\s:]/g, '').toLowerCase())
    .pipe(z.string().regex(/^[\da-f]{64}$/, 'A SHA-256 fingerprint has 64 hexadecimal digits.')),
  expires: z.union([z.literal('').transform(() => null), z.iso.date()]),
});

/** The fingerprint as browsers show it, its first and last bytes. */
const ends = (hex: string): string => {
  const pairs = (hex.match(/../g) ?? []).map((p) => p.toUpperCase());
  return `${pairs.slice(0, 3).join(':')}:…:${pairs.slice(-2).join(':')}`;
};

/** A key of its shell, as the shell shows it at the first visit. */
function HostKey({ type, base64 }: { type: string; base64: string }) {
  const { data } = useQuery({
    queryKey: ['host key', base64],
    queryFn: async () => (await hostKeyFingerprint(base64)) ?? 'cannot be read',
    staleTime: Infinity,
  });
  return (
    <Sub>
      {type} <Data overflowWrap="anywhere">{data}</Data>
    </Sub>
  );
}

/** How a box is reached: its page with the one warning that is expected, and its remote shell. */
export function Reached({
  box,
  profile,
  host,
  network,
}: {
  box: Build;
  profile: Profile | undefined;
  host: Host;
  network: Network;
}) {
  const act = useAct();
  const reach = box.reach ?? noReach();
  const page = pageOf(profile, host, network);
  const { form, submit, forget } = useDraftForm({
    values: { fingerprint: '', expires: '' },
    resolver: checked<{ fingerprint: string; expires: string }, z.output<typeof pageSchema>>(pageSchema),
    draft: `page ${box.id}`,
    ask: false,
    save: async ({ fingerprint, expires }) => {
      const noted = reach.page;
      if (noted && noted.fingerprint !== fingerprint) {
        form.setError('fingerprint', {
          type: 'custom',
          message:
            'This is not the one that was noted first: somebody else answers there, or it was made anew.',
        });
        return false;
      }
      const kept = await act(
        noteReach(
          box,
          { page: { fingerprint, at: noted?.at ?? stamp().now, expires } },
          noted ? 'The certificate is the same' : 'Certificate noted',
        ),
      );
      if (kept) forget();
      return kept;
    },
  });
  const lines = knownHostsLines(host, network, reach.hostKeys);
  return (
    <Stack gap="4">
      {page && (
        <Box as="section" aria-label="Its administration page">
          <Head marginBottom="1">Its administration page</Head>
          <Data>{page.byAddress}</Data>
          {page.byName !== null && (
            <Sub>
              <Data>{page.byName}</Data>
            </Sub>
          )}
          {profile?.admin?.scheme === 'https' && (
            <>
              <Sub>
                {reach.page
                  ? `Warned about once; noted ${formatDay(reach.page.at)}, fingerprint ${ends(reach.page.fingerprint)}${reach.page.expires === null ? '' : `, ends ${formatDay(reach.page.expires)}`}`
                  : 'The browser warns once about its self-signed certificate. That is expected: note its fingerprint then, and compare it at the next warning.'}
              </Sub>
              <Fold title={reach.page ? 'A warning again? Compare' : 'Note the certificate'}>
                <form onSubmit={(e) => void submit(e)}>
                  <HStack gap="3" align="flex-end" flexWrap="wrap">
                    <Input
                      label="SHA-256 fingerprint"
                      data
                      error={form.formState.errors.fingerprint?.message}
                      {...form.register('fingerprint')}
                    />
                    <Input label="Its last day" type="date" {...form.register('expires')} />
                    <Quiet type="submit">{reach.page ? 'Compare' : 'Note it'}</Quiet>
                  </HStack>
                </form>
                {reach.page?.expires != null && (
                  <Word
                    onClick={() => void saveDay(`${box.name}: certificate ends`, reach.page?.expires ?? '')}
                  >
                    Its last day for the calendar
                  </Word>
                )}
                {reach.page && (
                  <Word onClick={() => void act(noteReach(box, { page: null }, 'Certificate forgotten'))}>
                    It was made anew: forget the old one
                  </Word>
                )}
              </Fold>
            </>
          )}
        </Box>
      )}
      <Box as="section" aria-label="Remote shell">
        <Head marginBottom="1">Remote shell</Head>
        <HStack gap="4" flexWrap="wrap">
          <Segments
            label="Remote shell"
            options={SHELL}
            value={reach.shell ?? null}
            onTake={(shell) => void act(noteReach(box, { shell }, `Remote shell: ${shell}`))}
          />
          <Checkbox
            checked={reach.defaultUserGone}
            onChange={(defaultUserGone) =>
              void act(
                noteReach(
                  box,
                  { defaultUserGone },
                  defaultUserGone ? 'Shipped user gone' : 'Shipped user still there',
                ),
              )
            }
          >
            the user it came with is gone
          </Checkbox>
        </HStack>
        {reach.shell === null && (
          <Said kind="check">Turn it on before the monitor goes: afterwards nobody gets in.</Said>
        )}
        {reach.hostKeys.map((k) => (
          <HostKey key={k.type} type={k.type} base64={k.key} />
        ))}
        {lines.length > 0 && (
          <Sub>
            for known_hosts:{' '}
            {lines.map((l) => (
              <Data key={l} display="block" overflowWrap="anywhere">
                {l}
              </Data>
            ))}
          </Sub>
        )}
      </Box>
    </Stack>
  );
}
