import { Box, Stack } from '@chakra-ui/react';
import { useState } from 'react';
import { editGuests } from '@zb/core/acts/guests';
import type { Box as Build } from '@zb/core/model/bench';
import type { Guest, GuestPlan } from '@zb/core/model/guests';
import type { Pot } from '@zb/core/guests/pot';
import { withInstallers, type Installer } from '@zb/core/guests/start';
import { coreSum, memorySum, poolSums, running } from '@zb/core/guests/sums';
import { formatIec, GIB, MIB } from '@zb/core/units/bytes';
import { withItem } from '@zb/core/units/list';
import { commitWords, poolSumWords } from '@zb/core/words/guests';
import { useAct } from '../../../storage/hooks';
import { DragArea, Draggable, DropPlace } from '../../../ui/Drag';
import { Sub } from '../../../ui/Words';
import { PotColumn, PotRow, type Layer } from '../../../drawing/PotColumn';

const STEP = 128 * MIB;
const snap = (n: number, step: number): number => Math.max(step, Math.round(n / step) * step);

/** Memory, cores and every pool, with the host’s share and its guests in them; borders are moved, disks taken elsewhere. */
export function PotView({
  box,
  plan: kept,
  pot,
  installers,
}: {
  box: Build;
  plan: GuestPlan;
  pot: Pot;
  /** Images that lie on the pools too. */
  installers: readonly Installer[];
}) {
  const act = useAct();
  const [moving, setMoving] = useState<Guest | null>(null);
  const plan = moving ? { ...kept, guests: withItem(kept.guests, moving) } : kept;
  const on = running(plan);
  const memory = memorySum(plan, pot);
  const cores = coreSum(plan, pot);
  const set = (g: Guest, label: string): void => {
    setMoving(null);
    void act(editGuests(box, { guests: withItem(kept.guests, g) }, label));
  };
  const memoryLayers: Layer[] = memory
    ? [
        { key: 'base', amount: memory.base, pattern: 'table', name: 'host', says: formatIec(memory.base) },
        {
          key: 'cache',
          amount: memory.cache,
          pattern: 'table',
          name: 'cache',
          says: formatIec(memory.cache),
        },
        {
          key: 'each',
          amount: memory.overhead,
          pattern: 'table',
          name: 'for guests',
          says: formatIec(memory.overhead),
        },
        ...on.map((g, i): Layer => ({
          key: g.id,
          amount: g.memoryBytes,
          pattern: i % 2 === 0 ? 'part' : 'new',
          name: g.name,
          says: formatIec(g.memoryBytes),
          handle: {
            label: `Memory of ${g.name}`,
            says: formatIec(g.memoryBytes),
            now: g.memoryBytes,
            least: STEP,
            most: Math.max(memory.has, g.memoryBytes),
            step: -STEP,
            onMove: (to) => setMoving({ ...g, memoryBytes: snap(to, STEP) }),
            onSet: (to) =>
              set({ ...g, memoryBytes: snap(to, STEP) }, `${g.name}: ${formatIec(snap(to, STEP))} of memory`),
          },
        })),
      ]
    : [];
  return (
    <Stack gap="2">
      <DragArea
        nameOf={(id) => {
          const [guest, disk] = id.split(' ');
          return disk === undefined
            ? `on ${plan.pools.find((p) => p.id === id)?.name ?? id}`
            : `disk of ${plan.guests.find((g) => g.id === guest)?.name ?? ''}`;
        }}
        onDrop={(thing, poolId) => {
          const [guestId, diskId] = thing.split(' ');
          const g = kept.guests.find((x) => x.id === guestId);
          const to = kept.pools.find((p) => p.id === poolId);
          const disk = g?.disks.find((d) => d.id === diskId);
          if (!g || !to || !disk || disk.poolId === to.id) return;
          set(
            { ...g, disks: g.disks.map((d) => (d.id === diskId ? { ...d, poolId: to.id } : d)) },
            `A disk of ${g.name} on ${to.name}`,
          );
        }}
      >
        <PotRow>
          {memory && (
            <PotColumn
              title="Memory"
              has={memory.has}
              hasSays={formatIec(memory.has)}
              layers={memoryLayers}
              under={
                memory.free < 0 ? `${formatIec(-memory.free)} missing` : `${formatIec(memory.free)} free`
              }
            />
          )}
          {cores && (
            <PotColumn
              title="Cores"
              shared={cores.grade !== 'too much'}
              has={cores.threads}
              hasSays={`${cores.threads} threads`}
              layers={[
                {
                  key: 'host',
                  amount: pot.reserve.threads,
                  pattern: 'table',
                  name: 'host',
                  says: String(pot.reserve.threads),
                },
                ...on.map((g, i): Layer => ({
                  key: g.id,
                  amount: g.cores,
                  pattern: i % 2 === 0 ? 'part' : 'new',
                  name: g.name,
                  says: String(g.cores),
                  handle: {
                    label: `Cores of ${g.name}`,
                    says: String(g.cores),
                    now: g.cores,
                    least: 1,
                    most: Math.max(cores.threads, g.cores),
                    step: -1,
                    onMove: (to) => setMoving({ ...g, cores: Math.max(1, Math.round(to)) }),
                    onSet: (to) =>
                      set(
                        { ...g, cores: Math.max(1, Math.round(to)) },
                        `${g.name}: ${Math.max(1, Math.round(to))} cores`,
                      ),
                  },
                })),
              ]}
              under={commitWords(cores.grade)}
            />
          )}
          {poolSums(withInstallers(plan, installers)).map((s) => {
            const disks = plan.guests.flatMap((g) =>
              g.disks.filter((d) => d.poolId === s.pool.id).map((d) => ({ g, d })),
            );
            return (
              <DropPlace key={s.pool.id} id={s.pool.id}>
                <PotColumn
                  title={s.pool.name}
                  has={s.pool.bytes}
                  hasSays={formatIec(s.pool.bytes)}
                  layers={[
                    {
                      key: 'other',
                      amount: s.pool.otherBytes,
                      pattern: 'table',
                      name: 'not theirs',
                      says: formatIec(s.pool.otherBytes),
                    },
                    ...disks.map(({ g, d }, i): Layer => {
                      const thin = d.thin && s.pool.thin;
                      const takes = thin ? Math.min(d.usedBytes ?? 0, d.bytes) : d.bytes;
                      return {
                        key: `${g.id} ${d.id}`,
                        amount: takes,
                        pattern: i % 2 === 0 ? 'part' : 'new',
                        name: g.name,
                        says: formatIec(takes),
                        handle: {
                          label: thin ? `What the disk of ${g.name} may grow to` : `Disk of ${g.name}`,
                          says: formatIec(d.bytes),
                          now: d.bytes,
                          least: GIB,
                          most: Math.max(s.has, d.bytes),
                          step: -GIB,
                          onMove: (to) =>
                            setMoving({
                              ...g,
                              disks: g.disks.map((k) => (k.id === d.id ? { ...k, bytes: snap(to, GIB) } : k)),
                            }),
                          onSet: (to) =>
                            set(
                              {
                                ...g,
                                disks: g.disks.map((k) =>
                                  k.id === d.id ? { ...k, bytes: snap(to, GIB) } : k,
                                ),
                              },
                              `${g.name}: a disk of ${formatIec(snap(to, GIB))}`,
                            ),
                        },
                      };
                    }),
                  ]}
                  under={poolSumWords(s)}
                />
                {plan.pools.length > 1 && (
                  <Box marginTop="1">
                    {disks.map(({ g, d }) => (
                      <Draggable key={d.id} id={`${g.id} ${d.id}`} name={`the disk of ${g.name}`}>
                        <Sub>
                          {g.name}, {formatIec(d.bytes)}
                        </Sub>
                      </Draggable>
                    ))}
                  </Box>
                )}
              </DropPlace>
            );
          })}
        </PotRow>
      </DragArea>
    </Stack>
  );
}
