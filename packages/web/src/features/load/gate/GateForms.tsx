import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import type { z } from 'zod';
import { editGate } from '@zb/core/acts/rules';
import type { Box as Build } from '@zb/core/model/bench';
import {
  zoneKinds,
  type AddressSet,
  type Forward,
  type GatePlan,
  type GatePortPlan,
  type Seat,
  type ServiceSet,
  type Zone,
} from '@zb/core/model/gate';
import {
  addressesOfDraft,
  forwardDraftOf,
  forwardOfDraft,
  portDraftOf,
  portOfDraft,
  seatOfDraft,
  servicesOfDraft,
  typedServices,
  zoneOfDraft,
  type AddressDraft,
  type ForwardDraft,
  type PortDraft,
  type SeatDraft,
  type ZoneDraft,
} from '@zb/core/model/gateDraft';
import type { Network } from '@zb/core/model/network';
import { zoneId } from '@zb/core/rules/usual';
import { withItem, withoutItem } from '@zb/core/units/list';
import { zoneKindWords } from '@zb/core/words/gatePlan';
import { TickField, TicksField } from '../../../parts/fields';
import { checked } from '../../../parts/checked';
import { DraftDialog, useActAndClose } from '../../../parts/DraftDialog';
import { useDraftForm } from '../../../parts/useDraftForm';
import { FormGrid } from '../../../ui/FormGrid';
import { Input, Lines } from '../../../ui/Input';
import { Select } from '../../../ui/Select';

interface Of {
  box: Build;
  plan: GatePlan;
  onClose: () => void;
}

/** Keeps a plan with one of its lists changed, and closes where it was kept. */
function useKeep({ box, onClose }: Of) {
  const keep = useActAndClose(onClose);
  return (changed: Partial<GatePlan>, label: string): Promise<boolean> => keep(editGate(box, changed, label));
}

/** A side of the gate. */
export function ZoneForm({ zone, ...of }: Of & { zone: Zone | null }) {
  const keep = useKeep(of);
  const { plan } = of;
  const draft = useDraftForm<ZoneDraft, Zone>({
    values: { name: zone?.name ?? '', kind: zone?.kind ?? 'inside', tells: zone?.tells ?? false },
    resolver: checked<ZoneDraft, Zone>(zoneOfDraft(zone?.id ?? 'new')),
    draft: `zone ${of.box.id} ${zone?.id ?? 'new'}`,
    ask: false,
    save: (z) => {
      const taken = new Set(plan.zones.map((o) => o.id));
      const base = zoneId(z.name);
      const id = zone?.id ?? (taken.has(base) ? `${base}-${taken.size}` : base);
      return keep({ zones: withItem(plan.zones, { ...z, id }) }, `${z.name} saved`);
    },
  });
  const { form } = draft;
  const used =
    zone &&
    (plan.ports.some((p) => p.zoneId === zone.id) ||
      plan.permits.some((p) => [p.from.zone, p.to.zone].includes(zone.id)));
  return (
    <DraftDialog
      title={zone?.name ?? 'Another side'}
      size="sm"
      draft={draft}
      remove={
        zone && !used
          ? {
              words: 'Take it away',
              act: () => void keep({ zones: withoutItem(plan.zones, zone.id) }, `${zone.name} taken away`),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <Stack gap="3">
        <Input label="Name" error={form.formState.errors.name?.message} {...form.register('name')} />
        <Select
          label="What lies there"
          options={zoneKinds.map((k) => ({ value: k, words: zoneKindWords(k) }))}
          {...form.register('kind')}
        />
        <TickField control={form.control} name="tells">
          whoever is refused from here is told so
        </TickField>
      </Stack>
    </DraftDialog>
  );
}

/** A port: which socket, which number on its wire, which network behind it. */
export function PortForm({
  port,
  networks,
  ...of
}: Of & { port: GatePortPlan | null; networks: readonly Network[] }) {
  const keep = useKeep(of);
  const { plan } = of;
  const [id] = useState(() => port?.id ?? crypto.randomUUID());
  const draft = useDraftForm<PortDraft, GatePortPlan>({
    values: port
      ? portDraftOf(port)
      : {
          device: '',
          vlan: '',
          zoneId: plan.zones[0]?.id ?? '',
          networkId: '',
          hardware: '',
          socket: '',
          own: '',
          megabits: '',
        },
    resolver: checked<PortDraft, GatePortPlan>(portOfDraft(id)),
    draft: `port ${of.box.id} ${port?.id ?? 'new'}`,
    ask: false,
    save: (p) => keep({ ports: withItem(plan.ports, p) }, `Port ${p.device} saved`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog
      title={port ? port.device : 'Another port'}
      draft={draft}
      remove={
        port
          ? {
              words: 'Take it away',
              act: () =>
                void keep({ ports: withoutItem(plan.ports, port.id) }, `Port ${port.device} taken away`),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <FormGrid>
        <Input
          label="As its system calls it"
          data
          placeholder="enp1s0"
          error={errors.device?.message}
          {...form.register('device')}
        />
        <Input
          label="Number on its wire"
          data
          help="VLAN, 1 to 4094; empty: the wire itself"
          error={errors.vlan?.message}
          {...form.register('vlan')}
        />
        <Select
          label="Side"
          options={plan.zones.map((z) => ({ value: z.id, words: z.name }))}
          {...form.register('zoneId')}
        />
        <Select
          label="Network behind it"
          none="none laid out"
          options={networks.map((n) => ({ value: n.id, words: n.name }))}
          {...form.register('networkId')}
        />
        <Input
          label="Its own addresses"
          data
          help="empty: the gateway of the network, or what the line gives"
          error={errors.own?.message}
          {...form.register('own')}
        />
        <Input
          label="Which socket"
          help="as you see it: “left of the plug”"
          error={errors.socket?.message}
          {...form.register('socket')}
        />
        <Input
          label="Hardware address"
          data
          error={errors.hardware?.message}
          {...form.register('hardware')}
        />
        <Input label="Mb/s" data error={errors.megabits?.message} {...form.register('megabits')} />
      </FormGrid>
    </DraftDialog>
  );
}

/** Several things under a name, typed line by line. */
function NamedForm<T extends { id: string; name: string }>({
  set,
  title,
  typed,
  what,
  help,
  prefix,
  reads,
  keep,
  onClose,
}: {
  set: T | null;
  title: string;
  /** What is in it, as it is typed. */
  typed: string;
  what: string;
  help?: string;
  prefix: string;
  reads: (id: string) => z.ZodType<T, AddressDraft>;
  keep: { put: (set: T) => Promise<boolean>; drop: (set: T) => void };
  onClose: () => void;
}) {
  const [id] = useState(() => set?.id ?? `${prefix}-${crypto.randomUUID()}`);
  const draft = useDraftForm<AddressDraft, T>({
    values: { name: set?.name ?? '', entries: typed },
    resolver: checked<AddressDraft, T>(reads(id)),
    draft: `${title} ${set?.id ?? 'new'}`,
    ask: false,
    save: keep.put,
  });
  const { errors } = draft.form.formState;
  return (
    <DraftDialog
      title={set?.name ?? title}
      size="sm"
      draft={draft}
      remove={set ? { words: 'Take it away', act: () => keep.drop(set) } : undefined}
      onClose={onClose}
    >
      <Stack gap="3">
        <Input label="Name" error={errors.name?.message} {...draft.form.register('name')} />
        <Lines
          label={what}
          data
          rows={5}
          help={help}
          error={errors.entries?.message}
          {...draft.form.register('entries')}
        />
      </Stack>
    </DraftDialog>
  );
}

/** Addresses under a name. */
export function AddressForm({ set, ...of }: Of & { set: AddressSet | null }) {
  const keep = useKeep(of);
  const { addresses } = of.plan;
  return (
    <NamedForm
      set={set}
      title="Addresses under a name"
      typed={set?.entries.join('\n') ?? ''}
      what="Addresses, ranges, prefixes"
      prefix="a"
      reads={addressesOfDraft}
      keep={{
        put: (s) => keep({ addresses: withItem(addresses, s) }, `${s.name} saved`),
        drop: (s) => void keep({ addresses: withoutItem(addresses, s.id) }, `${s.name} taken away`),
      }}
      onClose={of.onClose}
    />
  );
}

/** Services under a name. */
export function ServiceForm({ set, ...of }: Of & { set: ServiceSet | null }) {
  const keep = useKeep(of);
  const { services } = of.plan;
  return (
    <NamedForm
      set={set}
      title="Services under a name"
      typed={set ? typedServices(set.entries) : ''}
      what="Packets"
      help="a line for each protocol: tcp 80, 443, 8000-8010"
      prefix="s"
      reads={servicesOfDraft}
      keep={{
        put: (s) => keep({ services: withItem(services, s) }, `${s.name} saved`),
        drop: (s) => void keep({ services: withoutItem(services, s.id) }, `${s.name} taken away`),
      }}
      onClose={of.onClose}
    />
  );
}

/** A port of the outside that leads to a host behind the gate. */
export function ForwardForm({ forward, ...of }: Of & { forward: Forward | null }) {
  const keep = useKeep(of);
  const { plan } = of;
  const [id] = useState(() => forward?.id ?? crypto.randomUUID());
  const draft = useDraftForm<ForwardDraft, Forward>({
    values: forward
      ? forwardDraftOf(forward)
      : { name: '', protocol: 'tcp', ports: '', to: '', toPort: '', sources: [], on: true },
    resolver: checked<ForwardDraft, Forward>(forwardOfDraft(id)),
    draft: `forward ${of.box.id} ${forward?.id ?? 'new'}`,
    ask: false,
    save: (f) => keep({ forwards: withItem(plan.forwards, f) }, `${f.name} saved`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog
      title={forward?.name ?? 'A port led in from outside'}
      draft={draft}
      remove={
        forward
          ? {
              words: 'Take it away',
              act: () =>
                void keep({ forwards: withoutItem(plan.forwards, forward.id) }, `${forward.name} taken away`),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <FormGrid>
        <Input label="What for" error={errors.name?.message} {...form.register('name')} />
        <Select
          label="Protocol"
          options={[
            { value: 'tcp', words: 'TCP' },
            { value: 'udp', words: 'UDP' },
          ]}
          {...form.register('protocol')}
        />
        <Input
          label="Port outside"
          data
          help="or first and last: 8000-8010"
          error={errors.ports?.message}
          {...form.register('ports')}
        />
        <Input label="To address" data error={errors.to?.message} {...form.register('to')} />
        <Input
          label="To port"
          data
          help="empty: the one that was asked for"
          error={errors.toPort?.message}
          {...form.register('toPort')}
        />
        {plan.addresses.length > 0 && (
          <TicksField
            control={form.control}
            name="sources"
            label="Only from"
            help="none ticked: anybody"
            options={plan.addresses.map((a) => ({ value: a.id, words: a.name }))}
          />
        )}
        <TickField control={form.control} name="on">
          in force
        </TickField>
      </FormGrid>
    </DraftDialog>
  );
}

/** From where the gate is looked after. */
export function SeatForm(of: Of) {
  const keep = useKeep(of);
  const { plan } = of;
  const draft = useDraftForm<SeatDraft, Seat>({
    values: {
      zone: plan.seat?.zone ?? plan.zones.find((z) => z.kind === 'inside')?.id ?? '',
      address: plan.seat?.address ?? '',
      ports: plan.seat?.ports.join(' ') ?? '443 22',
    },
    resolver: checked<SeatDraft, Seat>(seatOfDraft),
    draft: `seat ${of.box.id}`,
    ask: false,
    save: (seat) => keep({ seat }, 'Where the gate is looked after from'),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="Looked after from" size="sm" draft={draft} onClose={of.onClose}>
      <Stack gap="3">
        <Select
          label="Side"
          options={plan.zones.map((z) => ({ value: z.id, words: z.name }))}
          {...form.register('zone')}
        />
        <Input
          label="Address you sit at"
          data
          help="empty: anywhere there"
          error={errors.address?.message}
          {...form.register('address')}
        />
        <Input
          label="Ports of page and shell"
          data
          error={errors.ports?.message}
          {...form.register('ports')}
        />
      </Stack>
    </DraftDialog>
  );
}
