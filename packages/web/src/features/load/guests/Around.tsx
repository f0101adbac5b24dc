import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import type { GuestNet, GuestPlan, GuestPool, HandedDevice } from '@zb/core/model/guests';
import { hostReleases } from '@zb/core/guests/releases';
import type { Pot } from '@zb/core/guests/pot';
import { forecastOf } from '@zb/core/guests/volume';
import { formatIec } from '@zb/core/units/bytes';
import { findProfile } from '@zb/core/model/bench';
import { forecastWords, netModeWords, reserveWords } from '@zb/core/words/guests';
import { judgedShort } from '@zb/core/words/fit/finding';
import { Quiet, Word } from '../../../ui/Button';
import { VerdictMark } from '../../../ui/Marks';
import { Cell, Line, LineHead, Num, Ruled } from '../../../ui/Ruled';
import { To } from '../../../ui/To';
import { Acts, Data, Head, Sub } from '../../../ui/Words';
import { DeviceForm, NetForm, PotForm, RoomForm, VolumeForm } from './AroundForms';

type Open =
  | { what: 'pool'; of: GuestPool | null }
  | { what: 'net'; of: GuestNet | null }
  | { what: 'device'; of: HandedDevice | null }
  | { what: 'pot' | 'volume' }
  | null;

const PARTS = ['base', 'cache', 'perGuest'] as const;

/** What stands around the guests: the host’s share, its pools, networks and devices, its release, its page, its volume. */
export function Around({ bench, box, plan, pot }: { bench: Bench; box: Build; plan: GuestPlan; pot: Pot }) {
  const [open, setOpen] = useState<Open>(null);
  const close = (): void => setOpen(null);
  const form = { box, plan, onClose: close };
  const forecast = forecastOf(plan);
  const releases = hostReleases(bench, box);
  const admin = findProfile(bench, box.profileId)?.admin;
  const page = box.reach?.page;
  return (
    <Stack gap="5">
      <Stack direction={{ base: 'column', lg: 'row' }} gap="6" align="flex-start">
        <Box flex="1" minWidth="0" width="full">
          <Stack gap="4">
            <Box as="section" aria-label="What the host keeps">
              <Head marginBottom="1">What the host keeps</Head>
              <Ruled dense silent label="The host’s share" heads={['What', 'How much', 'Why']}>
                {PARTS.map((part) => {
                  const said = reserveWords(part, pot.reserve);
                  return (
                    <Line key={part}>
                      <LineHead>
                        {said.what}
                        <Sub>{said.because}</Sub>
                      </LineHead>
                      <Num>{formatIec(Math.round(pot.reserve[part]))}</Num>
                    </Line>
                  );
                })}
              </Ruled>
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'pot' })}>Say it otherwise</Quiet>
              </Acts>
            </Box>
            <Box as="section" aria-label="Networks of guests">
              <Head marginBottom="1">Networks</Head>
              <Ruled dense silent label="Networks" heads={['Name', 'How', 'Bridge']}>
                {plan.nets.map((n) => (
                  <Line key={n.id}>
                    <LineHead>
                      <Word onClick={() => setOpen({ what: 'net', of: n })}>{n.name}</Word>
                    </LineHead>
                    <Cell>
                      {netModeWords(n.mode)}
                      {n.prefix !== null && (
                        <Sub>
                          <Data>{n.prefix}</Data>
                        </Sub>
                      )}
                    </Cell>
                    <Cell>
                      <Data>{n.bridge}</Data>
                    </Cell>
                  </Line>
                ))}
              </Ruled>
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'net', of: null })}>Another network</Quiet>
              </Acts>
            </Box>
          </Stack>
        </Box>
        <Box flex="1" minWidth="0" width="full">
          <Stack gap="4">
            <Box as="section" aria-label="Where disks lie">
              <Head marginBottom="1">Where disks lie</Head>
              <Ruled dense silent label="Pools" heads={['Name', 'Room', 'Path']}>
                {plan.pools.map((p) => (
                  <Line key={p.id}>
                    <LineHead>
                      <Word onClick={() => setOpen({ what: 'pool', of: p })}>{p.name}</Word>
                      <Sub>
                        <Data>{p.path}</Data>
                      </Sub>
                    </LineHead>
                    <Num>{formatIec(p.bytes)}</Num>
                  </Line>
                ))}
              </Ruled>
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'pool', of: null })}>Another pool</Quiet>
              </Acts>
              <Sub>
                A second drive becomes a pool of its own under Pool: what is on it goes only once its serial
                was typed.
              </Sub>
            </Box>
            <Box as="section" aria-label="Devices to hand over">
              <Head marginBottom="1">Devices to hand over</Head>
              {plan.devices.length === 0 ? (
                <Sub>
                  None named. lspci -nnk tells their addresses, and the folders of iommu_groups what goes
                  together.
                </Sub>
              ) : (
                <Ruled dense silent label="Devices" heads={['Device', 'Address', 'Owner']}>
                  {plan.devices.map((d) => (
                    <Line key={d.id}>
                      <LineHead>
                        <Word onClick={() => setOpen({ what: 'device', of: d })}>{d.name}</Word>
                        <Sub>
                          <Data>{d.address}</Data>,{' '}
                          {d.group === null ? 'group not known' : `group ${d.group}`}
                        </Sub>
                      </LineHead>
                      <Cell>
                        {plan.guests
                          .filter((g) => g.devices.includes(d.id))
                          .map((g) => g.name)
                          .join(', ') || (d.host ? 'the host' : 'nobody')}
                      </Cell>
                    </Line>
                  ))}
                </Ruled>
              )}
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'device', of: null })}>Name a device</Quiet>
              </Acts>
            </Box>
            <Box as="section" aria-label="The volume of the system">
              <Head marginBottom="1">The volume of the system</Head>
              {forecast
                ? forecastWords(forecast)
                : 'Nobody looked yet. It fills with updates, and the host stops with it.'}
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'volume' })}>Note how full it is</Quiet>
              </Acts>
            </Box>
          </Stack>
        </Box>
      </Stack>
      <Box as="section" aria-label="Which release goes with this processor">
        <Head marginBottom="1">Which release goes with this processor</Head>
        {releases.length === 0 ? (
          <Sub>No system for guests is on the bench, or no machine is chosen.</Sub>
        ) : (
          <Ruled stacked label="Releases" heads={['System', 'Verdict', 'Because']}>
            {releases.map((r) => (
              <Line key={`${r.profile.id} ${r.release.id}`} here={r.chosen}>
                <LineHead>
                  {r.profile.name} {r.release.version}
                </LineHead>
                <Cell>
                  <VerdictMark
                    kind={
                      r.judged.verdict === 'fits'
                        ? 'yes'
                        : r.judged.verdict === 'does not fit'
                          ? 'no'
                          : r.judged.verdict === 'cannot say yet'
                            ? 'ask'
                            : 'change'
                    }
                  >
                    {r.judged.verdict}
                  </VerdictMark>
                </Cell>
                <Cell>{judgedShort(r.judged)}</Cell>
              </Line>
            ))}
          </Ruled>
        )}
      </Box>
      <Box as="section" aria-label="Its page">
        <Head marginBottom="1">Its page</Head>
        {admin ? (
          <>
            At port <Data>{admin.port}</Data> over {admin.scheme}.{' '}
            {page
              ? `Its certificate was noted${page.expires === null ? '' : `, and ends ${page.expires}`}.`
              : 'Nobody noted its certificate yet.'}{' '}
            <To to={`/box/${box.id}/network`}>Addresses and certificate</To>
          </>
        ) : (
          <Sub>
            What its page is called stands in its system; choose one first.{' '}
            <To to={`/box/${box.id}/choose`}>Choose</To>
          </Sub>
        )}
      </Box>
      {open?.what === 'pool' && <RoomForm {...form} pool={open.of} />}
      {open?.what === 'net' && <NetForm {...form} bench={bench} net={open.of} />}
      {open?.what === 'device' && <DeviceForm {...form} device={open.of} />}
      {open?.what === 'pot' && <PotForm {...form} />}
      {open?.what === 'volume' && <VolumeForm {...form} />}
    </Stack>
  );
}
