import { Stack } from '@chakra-ui/react';
import type { Host, Network } from '@zb/core/model/network';
import { labelOf } from '@zb/core/network/names';
import {
  hostWriterNames,
  networkWriterNames,
  networkWriters,
  writeForHost,
  writtenName,
  type HostWriter,
  type NetworkWriter,
} from '@zb/core/network/write/forms';
import { useState } from 'react';
import { Dialog } from '../ui/Dialog';
import { Said } from '../ui/Said';
import { Select } from '../ui/Select';
import { WrittenText } from './WrittenText';

const TITLE: Record<NetworkWriter | HostWriter, string> = {
  dnsmasq: 'dnsmasq: pool, kept addresses, names',
  isc: 'ISC server: subnet and hosts',
  kea: 'Kea: Dhcp4 with reservations',
  hosts: '/etc/hosts: names',
  csv: 'a table with commas',
  networkd: 'networkd: the box sets its own',
  netplan: 'netplan: the box sets its own',
  ifupdown: 'ifupdown: the box sets its own',
  networkmanager: 'NetworkManager: the box sets its own',
};

/** What leaves the house: the plan in the words of a server, or of one host. */
export function LanWrite({
  open,
  onClose,
  network,
  hosts,
  host,
  first = 'dnsmasq',
}: {
  open: boolean;
  onClose: () => void;
  network: Network;
  hosts: readonly Host[];
  /** The host that could set its own address. */
  host?: Host | undefined;
  first?: NetworkWriter | HostWriter;
}) {
  const [form, setForm] = useState<NetworkWriter | HostWriter>(first);
  const whole = networkWriterNames.find((n) => n === form);
  const own = hostWriterNames.find((n) => n === form);
  const text = whole
    ? networkWriters[whole](network, hosts)
    : own && host
      ? writeForHost(own, network, host)
      : undefined;
  return (
    <Dialog open={open} onClose={onClose} title={`${network.name}, written down for others`} size="lg">
      <Stack gap="3">
        <Select
          label="For"
          value={form}
          onChange={(e) => {
            const to = [...networkWriterNames, ...hostWriterNames].find((n) => n === e.target.value);
            if (to) setForm(to);
          }}
          options={[...networkWriterNames, ...(host ? hostWriterNames : [])].map((n) => ({
            value: n,
            words: TITLE[n],
          }))}
        />
        {text === undefined ? (
          <Said kind="check">
            Nothing can be written yet: the address, or the addresses of the network, are not known.
          </Said>
        ) : (
          <WrittenText
            text={text}
            name={writtenName[form](labelOf(own && host ? host.name : network.name) || 'network')}
          />
        )}
      </Stack>
    </Dialog>
  );
}
