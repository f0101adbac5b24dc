import { Box } from '@chakra-ui/react';
import { Controller, type FieldErrors } from 'react-hook-form';
import { addHost, editHost, editNetwork, removeHost, removeNetwork } from '@zb/core/acts/network';
import type { Bench } from '@zb/core/model/bench';
import {
  hostManners,
  hostManners6,
  poolManners,
  schemes,
  type Host,
  type Network,
} from '@zb/core/model/network';
import {
  hostDraftOf,
  hostOfDraft,
  networkDraftOf,
  networkOfDraft,
  type HostDraft,
  type NetworkDraft,
} from '@zb/core/model/networkDraft';
import { uniqueLocal } from '@zb/core/network/ranges';
import { formatPrefix } from '@zb/core/units/prefix';
import { mannerWords, poolMannerWords, schemeWords } from '@zb/core/words/lan';
import { Word } from '../ui/Button';
import { Checkbox } from '../ui/Checkbox';
import { FormGrid } from '../ui/FormGrid';
import { Input, Lines } from '../ui/Input';
import { Select } from '../ui/Select';
import { checked } from './checked';
import { DraftDialog, useActAndClose } from './DraftDialog';
import { useDraftForm } from './useDraftForm';

const SO = [
  { value: '', words: 'nobody knows' },
  { value: 'yes', words: 'yes' },
  { value: 'no', words: 'no' },
];

/** A prefix of one’s own for IPv6, by the browser’s own chance (RFC 4193). */
const ownPrefix = (subnet: number): string =>
  formatPrefix(uniqueLocal([...crypto.getRandomValues(new Uint8Array(5))], subnet));

/** All that is said of a network. */
export function NetworkForm({
  bench,
  network,
  onClose,
}: {
  bench: Bench;
  network: Network;
  onClose: () => void;
}) {
  const keep = useActAndClose(onClose);
  const draft = useDraftForm<NetworkDraft, Network>({
    values: networkDraftOf(network),
    resolver: checked<NetworkDraft, Network>(networkOfDraft(network)),
    draft: `network ${network.id}`,
    ask: false,
    save: (after) => keep(editNetwork(network, after)),
  });
  const { form } = draft;
  const errors: FieldErrors<NetworkDraft> = form.formState.errors;
  const line = (label: string, key: keyof NetworkDraft, help?: string, placeholder?: string) => (
    <Input
      label={label}
      data={key !== 'name' && key !== 'notes'}
      {...(help === undefined ? {} : { help })}
      {...(placeholder === undefined ? {} : { placeholder })}
      error={errors[key]?.message}
      {...form.register(key)}
    />
  );
  return (
    <DraftDialog
      title={network.name}
      size="lg"
      draft={draft}
      onClose={onClose}
      remove={{
        words: 'Remove this network',
        act: () => void keep(removeNetwork(bench, network)),
      }}
    >
      <FormGrid>
        {line('Name', 'name')}
        {line('Addresses', 'prefix', 'of IPv4', '192.0.2.0/24')}
        {line('Gateway', 'gateway', 'the way out, usually the router')}
        {line('Name servers', 'nameServers', 'with commas between them')}
        {line('Handed out from', 'poolFrom')}
        {line('to', 'poolTo')}
        {line('Lease, hours', 'leaseHours', 'asked for again after half of it')}
        <Select
          label="The server chooses"
          options={poolManners.map((m) => ({ value: m, words: poolMannerWords[m] }))}
          {...form.register('manner')}
        />
        <Select label="It still knows its leases after a cut" options={SO} {...form.register('remembers')} />
        {line('Domain', 'domain', 'behind every name', 'hall.home.arpa')}
        <Controller
          control={form.control}
          name="ownDomain"
          render={({ field }) => (
            <Checkbox checked={field.value} onChange={field.onChange}>
              The domain is registered to me
            </Checkbox>
          )}
        />
        <Select
          label="Boxes get"
          options={schemes.map((s) => ({ value: s, words: schemeWords[s] }))}
          {...form.register('scheme')}
        />
        {line('Boxes from', 'boxesFrom', 'empty: past the first nine')}
        {line('Far side of the gateway', 'outside', 'what the router has outside')}
        {line('Number on the wire', 'vlan', 'VLAN; empty where it has the wire to itself')}
        <Box>
          {line('Addresses of IPv6', 'prefix6', undefined, 'fd12:3456:789a:1::/64')}
          <Word
            onClick={() =>
              form.setValue('prefix6', ownPrefix(network.vlan ?? 1), {
                shouldDirty: true,
                shouldValidate: true,
              })
            }
          >
            one of one’s own, by chance
          </Word>
        </Box>
        {line('Gateway of IPv6', 'gateway6')}
        <Box gridColumn="1 / -1">
          <Lines label="Notes" rows={2} error={errors.notes?.message} {...form.register('notes')} />
        </Box>
      </FormGrid>
    </DraftDialog>
  );
}

/** All that is said of a host. */
export function HostForm({ bench, host, onClose }: { bench: Bench; host: Host; onClose: () => void }) {
  const keep = useActAndClose(onClose);
  const there = bench.hosts.some((h) => h.id === host.id);
  const draft = useDraftForm<HostDraft, Host>({
    values: hostDraftOf(host),
    resolver: checked<HostDraft, Host>(hostOfDraft(host)),
    draft: `host ${there ? host.id : 'new'}`,
    ask: false,
    save: (after) => keep(there ? editHost(host, after, `“${after.name}” saved`) : addHost(after)),
  });
  const { form } = draft;
  const errors: FieldErrors<HostDraft> = form.formState.errors;
  const line = (label: string, key: keyof HostDraft, help?: string) => (
    <Input
      label={label}
      data={key !== 'name' && key !== 'notes'}
      {...(help === undefined ? {} : { help })}
      error={errors[key]?.message}
      {...form.register(key)}
    />
  );
  return (
    <DraftDialog
      title={there ? host.name : 'Write a host down'}
      size="lg"
      draft={draft}
      onClose={onClose}
      remove={
        there
          ? {
              words: 'Take it away',
              act: () => void keep(removeHost(host)),
            }
          : undefined
      }
    >
      <FormGrid>
        {line('Name', 'name')}
        <Select
          label="It has its address"
          options={hostManners.map((m) => ({ value: m, words: mannerWords(m) }))}
          {...form.register('manner')}
        />
        {line('Address', 'address')}
        {line('Address of its card', 'hardware', 'twelve digits, on a sticker or in its settings')}
        {line('Name in the network', 'label', 'letters, digits, hyphens')}
        <Select
          label="It is the box"
          none="none of them"
          options={bench.boxes.map((b) => ({ value: b.id, words: b.name }))}
          {...form.register('boxId')}
        />
        <Select
          label="It hangs on"
          none="nobody said"
          options={[
            { value: 'wired', words: 'a wire' },
            { value: 'wireless', words: 'a radio' },
          ]}
          {...form.register('link')}
        />
        {line('Its port', 'port', 'such as eth0')}
        {line('Length of its mask', 'bits', 'empty: that of the network')}
        <Select label="Asks for its old address again" options={SO} {...form.register('asksAgain')} />
        {line('Room or rack', 'place', 'a number')}
        {line('Address of IPv6', 'address6')}
        <Select
          label="It has that"
          none="nobody said"
          options={[...hostManners6]}
          {...form.register('manner6')}
        />
        <Box gridColumn="1 / -1">
          <Lines label="Notes" rows={2} error={errors.notes?.message} {...form.register('notes')} />
        </Box>
      </FormGrid>
    </DraftDialog>
  );
}
