import { Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { editGuests } from '@zb/core/acts/guests';
import type { Bench, Box as Build } from '@zb/core/model/bench';
import {
  deviceOfDraft,
  guestNetOfDraft,
  guestPoolOfDraft,
  potDraftOf,
  potOfDraft,
  volumeOfDraft,
  type DeviceDraft,
  type GuestNetDraft,
  type GuestPoolDraft,
  type PotDraft,
  type VolumeDraft,
} from '@zb/core/model/guestDraft';
import type {
  GuestNet,
  GuestPlan,
  GuestPool,
  HandedDevice,
  PotPlan,
  VolumeReading,
} from '@zb/core/model/guests';
import { writeSize } from '@zb/core/units/typedSize';
import { withItem, withoutItem } from '@zb/core/units/list';
import { netModeWords } from '@zb/core/words/guests';
import { TickField } from '../../../parts/fields';
import { checked } from '../../../parts/checked';
import { DraftDialog, useActAndClose } from '../../../parts/DraftDialog';
import { useDraftForm } from '../../../parts/useDraftForm';
import { stamp } from '../../../storage/hooks';
import { FormGrid } from '../../../ui/FormGrid';
import { Input } from '../../../ui/Input';
import { Select } from '../../../ui/Select';

interface Of {
  box: Build;
  plan: GuestPlan;
  onClose: () => void;
}

/** Keeps a plan with one of its lists changed, and closes where it was kept. */
function useKeep({ box, onClose }: Of) {
  const keep = useActAndClose(onClose);
  return (changed: Partial<GuestPlan>, label: string): Promise<boolean> =>
    keep(editGuests(box, changed, label));
}

/** Where disks of guests lie. */
export function RoomForm({ pool, ...of }: Of & { pool: GuestPool | null }) {
  const keep = useKeep(of);
  const { plan } = of;
  const [id] = useState(() => pool?.id ?? crypto.randomUUID());
  const draft = useDraftForm<GuestPoolDraft, GuestPool>({
    values: {
      name: pool?.name ?? '',
      bytes: pool ? writeSize(pool.bytes) : '',
      other: pool ? writeSize(pool.otherBytes) : '',
      thin: pool?.thin ?? true,
      path: pool?.path ?? '/srv/guests',
    },
    resolver: checked<GuestPoolDraft, GuestPool>(guestPoolOfDraft(id)),
    draft: `guest pool ${of.box.id} ${pool?.id ?? 'new'}`,
    ask: false,
    save: (p) => keep({ pools: withItem(plan.pools, p) }, `${p.name} saved`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const used = pool && plan.guests.some((g) => g.disks.some((d) => d.poolId === pool.id));
  return (
    <DraftDialog
      title={pool?.name ?? 'Where disks lie'}
      draft={draft}
      remove={
        pool && !used
          ? {
              words: 'Take it away',
              act: () => void keep({ pools: withoutItem(plan.pools, pool.id) }, `${pool.name} taken away`),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <FormGrid>
        <Input label="Name" error={errors.name?.message} {...form.register('name')} />
        <Input label="Room" data error={errors.bytes?.message} {...form.register('bytes')} />
        <Input label="Not the guests’" data error={errors.other?.message} {...form.register('other')} />
        <Input label="Folder" data error={errors.path?.message} {...form.register('path')} />
        <TickField control={form.control} name="thin">
          disks may take only what is written
        </TickField>
      </FormGrid>
    </DraftDialog>
  );
}

/** How guests reach a network. */
export function NetForm({ bench, net, ...of }: Of & { bench: Bench; net: GuestNet | null }) {
  const keep = useKeep(of);
  const { plan } = of;
  const [id] = useState(() => net?.id ?? crypto.randomUUID());
  const draft = useDraftForm<GuestNetDraft, GuestNet>({
    values: {
      name: net?.name ?? '',
      mode: net?.mode ?? 'bridge',
      bridge: net?.bridge ?? 'br0',
      networkId: net?.networkId ?? '',
      prefix: net?.prefix ?? '',
    },
    resolver: checked<GuestNetDraft, GuestNet>(guestNetOfDraft(id)),
    draft: `guest net ${of.box.id} ${net?.id ?? 'new'}`,
    ask: false,
    save: (n) => keep({ nets: withItem(plan.nets, n) }, `${n.name} saved`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const used = net && plan.guests.some((g) => g.nics.some((n) => n.netId === net.id));
  return (
    <DraftDialog
      title={net?.name ?? 'A network of guests'}
      draft={draft}
      remove={
        net && !used
          ? {
              words: 'Take it away',
              act: () => void keep({ nets: withoutItem(plan.nets, net.id) }, `${net.name} taken away`),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <FormGrid>
        <Input label="Name" data error={errors.name?.message} {...form.register('name')} />
        <Select
          label="Guests are"
          options={(['bridge', 'behind', 'apart'] as const).map((m) => ({
            value: m,
            words: netModeWords(m),
          }))}
          {...form.register('mode')}
        />
        <Input label="Bridge of the host" data error={errors.bridge?.message} {...form.register('bridge')} />
        <Select
          label="Laid out as"
          none="not laid out"
          options={bench.networks.map((n) => ({ value: n.id, words: n.name }))}
          {...form.register('networkId')}
        />
        <Input
          label="Prefix"
          data
          placeholder="10.44.99.0/24"
          error={errors.prefix?.message}
          {...form.register('prefix')}
        />
      </FormGrid>
    </DraftDialog>
  );
}

/** A device that may be handed to a guest. */
export function DeviceForm({ device, ...of }: Of & { device: HandedDevice | null }) {
  const keep = useKeep(of);
  const { plan } = of;
  const [id] = useState(() => device?.id ?? crypto.randomUUID());
  const draft = useDraftForm<DeviceDraft, HandedDevice>({
    values: {
      name: device?.name ?? '',
      address: device?.address ?? '',
      group: device?.group == null ? '' : String(device.group),
      node: device?.node == null ? '' : String(device.node),
      host: device?.host ?? false,
    },
    resolver: checked<DeviceDraft, HandedDevice>(deviceOfDraft(id)),
    draft: `device ${of.box.id} ${device?.id ?? 'new'}`,
    ask: false,
    save: (d) => keep({ devices: withItem(plan.devices, d) }, `${d.name} saved`),
  });
  const { form } = draft;
  const { errors } = form.formState;
  const used = device && plan.guests.some((g) => g.devices.includes(device.id));
  return (
    <DraftDialog
      title={device?.name ?? 'A device to hand over'}
      draft={draft}
      remove={
        device && !used
          ? {
              words: 'Take it away',
              act: () =>
                void keep({ devices: withoutItem(plan.devices, device.id) }, `${device.name} taken away`),
            }
          : undefined
      }
      onClose={of.onClose}
    >
      <FormGrid>
        <Input label="What it is" error={errors.name?.message} {...form.register('name')} />
        <Input
          label="Address"
          data
          placeholder="0000:03:00.0"
          error={errors.address?.message}
          {...form.register('address')}
        />
        <Input
          label="Group"
          data
          help="what cannot be parted has one number"
          error={errors.group?.message}
          {...form.register('group')}
        />
        <Input label="Socket" data error={errors.node?.message} {...form.register('node')} />
        <TickField control={form.control} name="host">
          the host cannot do without it
        </TickField>
      </FormGrid>
    </DraftDialog>
  );
}

/** What the host has and keeps, where it is not as surveyed or as usual. */
export function PotForm(of: Of) {
  const keep = useKeep(of);
  const draft = useDraftForm<PotDraft, PotPlan>({
    values: potDraftOf(of.plan),
    resolver: checked<PotDraft, PotPlan>(potOfDraft(of.plan.pot)),
    draft: `pot ${of.box.id}`,
    ask: false,
    save: (pot) => keep({ pot }, 'What the host keeps'),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="What the host has and keeps" draft={draft} onClose={of.onClose}>
      <FormGrid>
        <Input
          label="Memory its system sees"
          data
          help="empty: as surveyed"
          error={errors.memory?.message}
          {...form.register('memory')}
        />
        <Input
          label="Threads"
          data
          help="empty: as surveyed"
          error={errors.threads?.message}
          {...form.register('threads')}
        />
        <Input label="Sockets" data error={errors.sockets?.message} {...form.register('sockets')} />
        <Input
          label="Memory of each socket"
          data
          help="with commas; empty: equal parts"
          error={errors.nodes?.message}
          {...form.register('nodes')}
        />
        <Input
          label="For itself"
          data
          help="empty: as is usual"
          error={errors.base?.message}
          {...form.register('base')}
        />
        <Input label="For its cache" data error={errors.cache?.message} {...form.register('cache')} />
        <Input label="For each guest" data error={errors.perGuest?.message} {...form.register('perGuest')} />
        <Select
          label="Its file systems have"
          options={[
            { value: 'page cache', words: 'the system’s page cache' },
            { value: 'own cache', words: 'a cache of their own' },
          ]}
          {...form.register('cacheKind')}
        />
        <Select
          label="Can hand devices over"
          options={[
            { value: '', words: 'nobody knows' },
            { value: 'yes', words: 'yes' },
            { value: 'no', words: 'no' },
          ]}
          {...form.register('handing')}
        />
      </FormGrid>
    </DraftDialog>
  );
}

/** How full the volume of the system is. */
export function VolumeForm(of: Of) {
  const keep = useKeep(of);
  const { plan } = of;
  const [id] = useState(() => crypto.randomUUID());
  const draft = useDraftForm<VolumeDraft, { bytes: number; reading: VolumeReading }>({
    values: {
      bytes: plan.volume ? writeSize(plan.volume.bytes) : '',
      used: '',
      at: stamp().now.slice(0, 10),
    },
    resolver: checked<VolumeDraft, { bytes: number; reading: VolumeReading }>(volumeOfDraft(id)),
    draft: `volume ${of.box.id}`,
    ask: false,
    save: ({ bytes, reading }) =>
      keep(
        { volume: { bytes, readings: [...(plan.volume?.readings ?? []), reading] } },
        'How full the volume is',
      ),
  });
  const { form } = draft;
  const { errors } = form.formState;
  return (
    <DraftDialog title="How full is the volume of the system?" size="sm" draft={draft} onClose={of.onClose}>
      <Stack gap="3">
        <Input label="Holds" data error={errors.bytes?.message} {...form.register('bytes')} />
        <Input label="Is used" data error={errors.used?.message} {...form.register('used')} />
        <Input label="On" data error={errors.at?.message} {...form.register('at')} />
      </Stack>
    </DraftDialog>
  );
}
