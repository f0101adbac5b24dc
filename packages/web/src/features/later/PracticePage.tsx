import { Stack } from '@chakra-ui/react';
import { BenchLedger } from '../../parts/BenchLedger';
import { Sheet } from '../../parts/Sheet';
import { useDepot } from '../../parts/useImagePlace';
import { useBench } from '../../storage/hooks';
import { Cell, Line, LineHead, Ruled } from '../../ui/Ruled';
import { Said } from '../../ui/Said';
import { To } from '../../ui/To';

const THINGS: [title: string, what: string, where: string, path: string][] = [
  [
    'A download that went wrong',
    'Fetch “Lantern Arcade 7.2, fetched on a bad line” and see how it is found out.',
    'Image room',
    '/images',
  ],
  [
    'A stick that lies',
    'Write any image to the market stick: it claims 64 GB and loses most of it.',
    'Write',
    '/box/games-corner/write',
  ],
  [
    'A drive that must not be lost',
    'Try to write to the scans stick. The guard says why not.',
    'Write',
    '/box/games-corner/write',
  ],
  [
    'Two that look alike',
    'The two 4 GB sticks in the hub report the same serial.',
    'Write',
    '/box/games-corner/write',
  ],
  [
    'Secure Boot in the way',
    'See the boot ladder of the games corner, then set Secure Boot to off.',
    'Firmware',
    '/box/games-corner/firmware',
  ],
  [
    'Guests that reach too much',
    'One promise of the guest gate fails. Try its rules out on the stand-in network, mend it, and try again.',
    'Load',
    '/box/guest-gate/load',
  ],
  [
    'A guest too many',
    'The booking host has too little memory for all of its guests. See which change is the smallest.',
    'Load',
    '/box/booking-host/load',
  ],
];

export default function PracticePage() {
  const bench = useBench();
  const depot = useDepot();
  const demo = bench.boxes.some((b) => b.id === 'games-corner');
  return (
    <>
      <Sheet
        title="Practice"
        mid="with stand-ins, nothing real at risk"
        headline="What would you like to see go wrong?"
      >
        <Stack gap="3">
          <Said>
            This area will hold whole exercises with a score; until then it names what the stand-ins can
            already do to you.
          </Said>
          {depot.error && <Said kind="check">{depot.error.message}</Said>}
          <Ruled stacked label="Troubles" heads={['Trouble', 'How to meet it', 'Where']}>
            {THINGS.filter(([, , , path]) => demo || path === '/images').map(([title, what, where, path]) => (
              <Line key={title}>
                <LineHead whole>{title}</LineHead>
                <Cell whole>{what}</Cell>
                <Cell>
                  <To to={path}>{where}</To>
                </Cell>
              </Line>
            ))}
          </Ruled>
        </Stack>
      </Sheet>
      <BenchLedger bench={bench} />
    </>
  );
}
