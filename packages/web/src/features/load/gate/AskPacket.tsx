import { Stack } from '@chakra-ui/react';
import { useMemo, useState } from 'react';
import { GATE, packetSchema, type Packet } from '@zb/core/model/gate';
import { packetOfDraft, type PacketDraft } from '@zb/core/model/packetDraft';
import { askPacket, numbered } from '@zb/core/rules/ask';
import { compileGate } from '@zb/core/rules/compile';
import type { BoxGate } from '@zb/core/rules/forBox';
import { packetStates } from '@zb/core/rules/ruleset';
import { groundOf } from '@zb/core/rules/sides';
import { askFaultWords, packetWords, stateWords } from '@zb/core/words/packet';
import { zoneWords } from '@zb/core/words/gatePlan';
import { checked } from '../../../parts/checked';
import { useDraftForm } from '../../../parts/useDraftForm';
import { Primary } from '../../../ui/Button';
import { Dialog } from '../../../ui/Dialog';
import { FormGrid } from '../../../ui/FormGrid';
import { Input } from '../../../ui/Input';
import { Said } from '../../../ui/Said';
import { Select } from '../../../ui/Select';
import { Head } from '../../../ui/Words';
import { WayOf } from './WayOf';
import { GateStage } from '../../../drawing/GateStage';

/** Any packet, told rule by rule, with its answer. */
export function AskPacket({ of, onClose }: { of: BoxGate; onClose: () => void }) {
  const { plan, networks, hosts } = of;
  const [asked, setAsked] = useState<Packet | null>(null);
  const guests = plan.zones.find((z) => z.kind !== 'outside');
  const draft = useDraftForm<PacketDraft, Packet>({
    values: {
      from: guests?.id ?? GATE,
      source: hosts.find((h) => h.address !== null)?.address ?? '',
      destination: '',
      protocol: 'tcp',
      port: '443',
      sourcePort: '40000',
      state: '',
      hour: '12:00',
    },
    resolver: checked<PacketDraft, Packet>(packetOfDraft),
    draft: null,
    ask: false,
    save: (p) => {
      setAsked(packetSchema.parse(p));
      return true;
    },
  });
  const { form } = draft;
  const { errors } = form.formState;
  const ruleset = useMemo(() => compileGate(plan, networks), [plan, networks]);
  const { routes } = groundOf(plan, networks, hosts);
  const packet = asked && numbered(asked, plan, networks);
  const told = packet && typeof packet !== 'string' ? askPacket(ruleset, routes, packet) : null;
  return (
    <Dialog open onClose={onClose} title="Ask a packet" size="lg">
      <Stack gap="4">
        <form onSubmit={(e) => void draft.submit(e)}>
          <FormGrid>
            <Select
              label="Comes in from"
              options={[...plan.zones.map((z) => z.id), GATE].map((z) => ({
                value: z,
                words: zoneWords(plan, z),
              }))}
              {...form.register('from')}
            />
            <Input label="Source" data error={errors.source?.message} {...form.register('source')} />
            <Input
              label="Destination"
              data
              help="or “from the line”: the gate’s own outside"
              error={errors.destination?.message}
              {...form.register('destination')}
            />
            <Select
              label="Protocol"
              options={['tcp', 'udp', 'icmp', 'icmpv6', 'sctp']}
              {...form.register('protocol')}
            />
            <Input
              label="Port, or type of ICMP"
              data
              error={errors.port?.message}
              {...form.register('port')}
            />
            <Input
              label="Source port"
              data
              error={errors.sourcePort?.message}
              {...form.register('sourcePort')}
            />
            <Select
              label="It is"
              none="the first of its kind"
              options={packetStates.map((s) => ({ value: s, words: stateWords(s) }))}
              {...form.register('state')}
            />
            <Input label="At" data error={errors.hour?.message} {...form.register('hour')} />
          </FormGrid>
          <Primary type="submit" marginTop="3">
            Ask
          </Primary>
        </form>
        {typeof packet === 'string' && <Said kind="check">{askFaultWords(packet)}</Said>}
        {told && (
          <>
            <GateStage plan={plan} asked={told} />
            <Head>{packetWords(plan, told.packet)}</Head>
            <WayOf plan={plan} ruleset={ruleset} walk={told.walk} label="Its way" />
            {told.answer && (
              <>
                <Head>Its answer: {packetWords(plan, told.answer.packet)}</Head>
                <WayOf plan={plan} ruleset={ruleset} walk={told.answer.walk} label="The way of its answer" />
              </>
            )}
          </>
        )}
      </Stack>
    </Dialog>
  );
}
