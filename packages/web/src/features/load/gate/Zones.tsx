import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { Box as Build } from '@zb/core/model/bench';
import type { AddressSet, Forward, GatePortPlan, ServiceSet, Zone } from '@zb/core/model/gate';
import { interfaceOf } from '@zb/core/model/gate';
import type { BoxGate } from '@zb/core/rules/forBox';
import { entriesWords, forwardWords, seatWords, zoneKindWords, zoneWords } from '@zb/core/words/gatePlan';
import { socketSteps } from '@zb/core/words/rules';
import { Quiet, Word } from '../../../ui/Button';
import { Fold } from '../../../ui/Fold';
import { Cell, Line, LineHead, Num, Ruled } from '../../../ui/Ruled';
import { Acts, Data, Head, Sub } from '../../../ui/Words';
import { AddressForm, ForwardForm, PortForm, SeatForm, ServiceForm, ZoneForm } from './GateForms';

type Open =
  | { what: 'zone'; of: Zone | null }
  | { what: 'port'; of: GatePortPlan | null }
  | { what: 'addresses'; of: AddressSet | null }
  | { what: 'services'; of: ServiceSet | null }
  | { what: 'forward'; of: Forward | null }
  | { what: 'seat' }
  | null;

/** What lies on which side, by which socket; names for addresses and services; what is led in from outside. */
export function Zones({ box, of }: { box: Build; of: BoxGate }) {
  const { plan, networks } = of;
  const [open, setOpen] = useState<Open>(null);
  const close = (): void => setOpen(null);
  const form = { box, plan, onClose: close };
  return (
    <Stack gap="5">
      <Box as="section" aria-label="Sides">
        <Head marginBottom="1">Sides, and the sockets they lie behind</Head>
        <Ruled
          stacked
          label="Ports"
          heads={['Side', 'Port', 'Network', 'Socket', { words: 'Mb/s', figure: true }]}
        >
          {plan.zones.flatMap((z) => {
            const ports = plan.ports.filter((p) => p.zoneId === z.id);
            return (ports.length > 0 ? ports : [null]).map((p, i) => {
              const network = networks.find((n) => n.id === p?.networkId);
              return (
                <Line key={`${z.id} ${p?.id ?? ''}`}>
                  <LineHead>
                    {i === 0 && (
                      <>
                        <Word onClick={() => setOpen({ what: 'zone', of: z })}>{z.name}</Word>
                        <Sub>
                          {zoneKindWords(z.kind)}, {z.tells ? 'told when refused' : 'refused silently'}
                        </Sub>
                      </>
                    )}
                  </LineHead>
                  <Cell>
                    {p ? (
                      <Word onClick={() => setOpen({ what: 'port', of: p })}>
                        <Data>{interfaceOf(p)}</Data>
                      </Word>
                    ) : (
                      'none yet'
                    )}
                  </Cell>
                  <Cell>
                    <Data>{[network?.prefix, network?.prefix6].filter(Boolean).join(' ')}</Data>
                    {p && !network && z.kind === 'outside' && 'whatever lies nowhere else'}
                  </Cell>
                  <Cell>{p?.socket ?? ''}</Cell>
                  <Num>{p?.megabits ?? ''}</Num>
                </Line>
              );
            });
          })}
        </Ruled>
        <Acts marginTop="2">
          <Quiet onClick={() => setOpen({ what: 'zone', of: null })}>Another side</Quiet>
          <Quiet onClick={() => setOpen({ what: 'port', of: null })}>Another port</Quiet>
        </Acts>
        <Fold title="Which socket is which?">
          <Stack gap="1">
            {socketSteps(plan).map((s) => (
              <Box key={s.says}>
                {s.says} {s.types !== '' && <Data>{s.types}</Data>}
              </Box>
            ))}
          </Stack>
        </Fold>
      </Box>
      <Stack direction={{ base: 'column', lg: 'row' }} gap="6" align="flex-start">
        <Box flex="1" minWidth="0" width="full" as="section" aria-label="Services by name">
          <Head marginBottom="1">Services by name</Head>
          <Ruled dense silent label="Services" heads={['Name', 'Packets']}>
            {plan.services.map((s) => (
              <Line key={s.id}>
                <LineHead>
                  <Word onClick={() => setOpen({ what: 'services', of: s })}>{s.name}</Word>
                </LineHead>
                <Cell>{entriesWords(s.entries)}</Cell>
              </Line>
            ))}
          </Ruled>
          <Acts marginTop="1">
            <Quiet onClick={() => setOpen({ what: 'services', of: null })}>Name services</Quiet>
          </Acts>
        </Box>
        <Box flex="1" minWidth="0" width="full">
          <Stack gap="4">
            <Box as="section" aria-label="Addresses by name">
              <Head marginBottom="1">Addresses by name</Head>
              <Ruled dense silent label="Addresses" heads={['Name', 'Addresses']}>
                {plan.addresses.map((a) => (
                  <Line key={a.id}>
                    <LineHead>
                      <Word onClick={() => setOpen({ what: 'addresses', of: a })}>{a.name}</Word>
                    </LineHead>
                    <Cell>
                      <Data overflowWrap="anywhere">{a.entries.join(', ')}</Data>
                    </Cell>
                  </Line>
                ))}
              </Ruled>
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'addresses', of: null })}>Name addresses</Quiet>
              </Acts>
            </Box>
            <Box as="section" aria-label="Looked after from">
              <Head marginBottom="1">Looked after from</Head>
              {seatWords(plan)} <Word onClick={() => setOpen({ what: 'seat' })}>change</Word>
            </Box>
            <Box as="section" aria-label="Led in from outside">
              <Head marginBottom="1">Led in from outside</Head>
              {plan.forwards.length === 0 ? (
                <Sub>No port of the outside leads to anything behind the gate.</Sub>
              ) : (
                <Ruled dense silent label="Forwarded ports" heads={['Name', 'Way']}>
                  {plan.forwards.map((f) => (
                    <Line key={f.id}>
                      <LineHead>
                        <Word onClick={() => setOpen({ what: 'forward', of: f })}>{f.name}</Word>
                      </LineHead>
                      <Cell>
                        <Data>{forwardWords(f)}</Data>
                        {!f.on && ', put aside'}
                      </Cell>
                    </Line>
                  ))}
                </Ruled>
              )}
              <Acts marginTop="1">
                <Quiet onClick={() => setOpen({ what: 'forward', of: null })}>Lead a port in</Quiet>
              </Acts>
            </Box>
          </Stack>
        </Box>
      </Stack>
      <Sub>
        Addresses that cannot be where they come from are dropped, and what never goes in the open stays (RFC
        2827, RFC 6890).{' '}
        {plan.translates
          ? `IPv4 leaves under the gate’s own address; ${zoneWords(plan, 'gate')} keeps who asked.`
          : 'No address is translated on its way out.'}
      </Sub>
      {open?.what === 'zone' && <ZoneForm {...form} zone={open.of} />}
      {open?.what === 'port' && <PortForm {...form} networks={networks} port={open.of} />}
      {open?.what === 'addresses' && <AddressForm {...form} set={open.of} />}
      {open?.what === 'services' && <ServiceForm {...form} set={open.of} />}
      {open?.what === 'forward' && <ForwardForm {...form} forward={open.of} />}
      {open?.what === 'seat' && <SeatForm {...form} />}
    </Stack>
  );
}
