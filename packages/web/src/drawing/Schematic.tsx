import { Box, chakra } from '@chakra-ui/react';
import type { ReactNode } from 'react';
import type { Place, PlaceGroup } from '@zb/core/machine/schematic';
import { Soft, Sub } from '../ui/Words';
import { useWalk } from './walk';

/** The mouth of a place, drawn so that kinds are told apart: pins of a slot, a key notch, a plug, a lane of contacts. */
const MOUTH: Record<string, ReactNode> = {
  Memory: <path d="M2 5H34V11H2ZM12 5V8M5 11V14M10 11V14M15 11V14M20 11V14M25 11V14M30 11V14" />,
  'M.2': <path d="M2 4H30V12H2ZM30 6H34M30 10H34M8 12V9M25 8H27" />,
  SATA: <path d="M3 3H15V13H3ZM6 9H9V13M19 3H33V13H19ZM30 9H27V13" />,
  'Drive ports': <path d="M3 3H33V13H3ZM7 10H20M26 10H29" />,
  Card: <path d="M4 2H24L30 7V14H4ZM8 2V6M12 2V6M16 2V6M20 2V6" />,
  Expansion: <path d="M2 6H9V11H2ZM11 6H34V11H11ZM5 11V13M14 11V13M18 11V13M22 11V13M26 11V13M30 11V13" />,
  'Wired network': <path d="M8 13H28V6H24V3H12V6H8ZM13 13V10M17 13V10M21 13V10M25 13V10" />,
  USB: <path d="M5 4H31V12H5ZM9 8H27" />,
};

/** One place, as it looks. */
export const Mouth = ({ of, taken }: { of: string; taken: boolean }) => (
  <chakra.svg
    aria-hidden="true"
    viewBox="0 0 36 16"
    css={{
      width: '36px',
      height: '16px',
      flex: '0 0 auto',
      fill: taken ? 'url(#zb-table)' : 'none',
      stroke: 'currentColor',
      strokeWidth: 1.3,
    }}
  >
    {MOUTH[of] ?? MOUTH.USB}
  </chakra.svg>
);

const told = (g: PlaceGroup, p: Place): string =>
  `${g.title}, ${p.label}: ${p.holds ?? 'free'}${p.unsure ? ', not certain' : ''}`;

/** Slots, ports and bays as a person sees them inside, one row for each kind: what is used, free, or only assumed. */
export function Schematic({ groups, name }: { groups: PlaceGroup[]; name: string }) {
  const places = groups.flatMap((g) => g.places.map((p) => ({ g, p })));
  const walk = useWalk(places.length);
  if (groups.length === 0)
    return <Soft>Slots, ports and bays are drawn here once their numbers are known.</Soft>;
  return (
    <Box
      role="list"
      aria-label={`Slots, ports and bays of ${name}`}
      data-part="schematic"
      onKeyDown={walk.onKeyDown}
      border="ink"
      css={{
        display: 'grid',
        gridTemplateColumns: 'minmax(96px, auto) minmax(0, 1fr)',
        '& [data-kind]': { padding: '5px 10px', borderTop: '1px solid {colors.rule}' },
        '& [data-row]': {
          display: 'flex',
          flexWrap: 'wrap',
          gap: '4px 8px',
          padding: '5px 10px',
          borderTop: '1px solid {colors.rule}',
          minWidth: 0,
        },
        '& > :nth-of-type(-n + 2)': { borderTop: 0 },
        '& [data-place]': {
          display: 'inline-flex',
          alignItems: 'center',
          gap: '7px',
          border: '1px solid {colors.fg}',
          padding: '2px 8px 2px 6px',
          fontSize: '12px',
          lineHeight: 1.25,
          minWidth: 0,
          maxWidth: '220px',
        },
        '& [data-place=free]': { borderColor: 'rule.strong', color: 'fg.muted' },
        '& [data-unsure]': { borderStyle: 'dotted' },
        '& [data-held]': {
          display: 'block',
          overflow: 'hidden',
          textOverflow: 'ellipsis',
          whiteSpace: 'nowrap',
        },
      }}
    >
      {groups.map((g) => {
        const free = g.places.filter((p) => p.holds === null).length;
        return (
          <Box key={g.title} display="contents" role="listitem">
            <div data-kind="">
              <b>{g.title}</b>
              {g.places.length > 1 && (
                <Sub>
                  {free} of {g.places.length} free
                </Sub>
              )}
            </div>
            <div data-row="">
              {g.places.map((p, i) => (
                <chakra.span
                  key={`${p.label}-${i}`}
                  role="img"
                  aria-label={told(g, p)}
                  title={told(g, p)}
                  data-place={p.holds === null ? 'free' : 'taken'}
                  {...(p.unsure ? { 'data-unsure': '' } : {})}
                  {...walk.part(places.findIndex((x) => x.p === p))}
                >
                  <Mouth of={g.title} taken={p.holds !== null} />
                  <chakra.span minWidth="0">
                    <Sub truncate>{p.label}</Sub>
                    <span data-held="">{p.holds ?? 'free'}</span>
                  </chakra.span>
                </chakra.span>
              ))}
            </div>
          </Box>
        );
      })}
    </Box>
  );
}
