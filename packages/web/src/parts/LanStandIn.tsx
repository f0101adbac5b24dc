import { Stack, Text } from '@chakra-ui/react';
import { useQuery, useQueryClient } from '@tanstack/react-query';
import { lanStateSchema, lanTexts, type LanEvent, type LanText } from '@zb/core/model/standInLan';
import { useState } from 'react';
import { Quiet } from '../ui/Button';
import { Checkbox } from '../ui/Checkbox';
import { Fold } from '../ui/Fold';
import { Said } from '../ui/Said';
import { Select } from '../ui/Select';
import { Acts } from '../ui/Words';
import { getJson, getText, sendJson } from './api';

const KEY = ['lan'];
/** How the stand-in network is asked for. */
export const useLan = (wanted: boolean) =>
  useQuery({
    queryKey: KEY,
    queryFn: () => getJson('/api/lan', lanStateSchema),
    retry: false,
    enabled: wanted,
  });

/** A network that ships with the application: looked at in the formats of the real tools, and made to go wrong. */
export function LanStandIn({ onText }: { onText: (text: string) => void }) {
  const queries = useQueryClient();
  const { data: lan } = useLan(true);
  const [what, setWhat] = useState<LanText>('look');
  const [host, setHost] = useState('archive');
  const [problem, setProblem] = useState('');
  const fail = (error: unknown): void => setProblem(error instanceof Error ? error.message : String(error));
  const happen = (event: LanEvent): void => {
    setProblem('');
    sendJson('POST', '/api/lan/events', event, lanStateSchema).then(
      (state) => queries.setQueryData(KEY, state),
      fail,
    );
  };
  const look = (): void => {
    setProblem('');
    getText(`/api/lan/look?as=${encodeURIComponent(what)}`).then(onText, fail);
  };
  return (
    <Fold title="Or from the stand-in network, where nothing is real">
      <Stack gap="2">
        <Text>
          A router, six hosts with addresses of every manner, one set by hand that nobody wrote down, one with
          a wrong mask.
        </Text>
        <Acts align="flex-end">
          <Select
            label="What is printed there"
            width="auto"
            options={[...lanTexts]}
            value={what}
            onChange={(e) => setWhat(lanTexts.find((t) => t === e.target.value) ?? 'look')}
          />
          <Quiet onClick={look}>Look at it</Quiet>
          <Quiet onClick={() => happen({ kind: 'cut' })}>Cut its power</Quiet>
          <Quiet onClick={() => happen({ kind: 'begin anew', seed: 7 })}>As it was set up</Quiet>
        </Acts>
        {lan && (
          <Acts align="flex-end">
            <Select
              label="One of its hosts"
              width="auto"
              options={lan.hosts.map((h) => ({
                value: h.id,
                words: `${h.name}${h.plugged ? '' : ', unplugged'}`,
              }))}
              value={host}
              onChange={(e) => setHost(e.target.value)}
            />
            <Quiet onClick={() => happen({ kind: 'restart', host })}>Restart it</Quiet>
            <Quiet onClick={() => happen({ kind: 'unplug', host })}>Unplug it</Quiet>
            <Quiet onClick={() => happen({ kind: 'plug in', host })}>Plug it in</Quiet>
          </Acts>
        )}
        <Checkbox
          checked={lan?.second === true}
          onChange={(there) => happen({ kind: 'second router', there })}
        >
          a second router is plugged in by mistake
        </Checkbox>
        {problem !== '' && <Said kind="check">{problem}</Said>}
      </Stack>
    </Fold>
  );
}
