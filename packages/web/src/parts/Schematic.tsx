import type { PlaceGroup } from '@zb/core/machine/schematic';

/** Slots, ports and bays as a person sees them inside: what is used, what is free, what is only assumed. */
export function Schematic({ groups, name }: { groups: PlaceGroup[]; name: string }) {
  if (groups.length === 0)
    return <p className="soft">Slots, ports and bays are drawn here once their numbers are known.</p>;
  return (
    <dl className="schematic" aria-label={`Slots, ports and bays of ${name}`}>
      {groups.map((g) => (
        <div key={g.title}>
          <dt>
            {g.title}
            {g.places.length > 1 && (
              <span className="sub">
                {g.places.filter((p) => p.holds === null).length} of {g.places.length} free
              </span>
            )}
          </dt>
          <dd>
            {g.places.map((p, i) => (
              <span
                key={`${p.label}-${i}`}
                className={`place${p.holds === null ? ' free' : ''}${p.unsure ? ' unsure' : ''}`}
              >
                <span className="sub">{p.label}</span>
                <span className="held" title={p.holds ?? 'free'}>
                  {p.holds ?? 'free'}
                </span>
              </span>
            ))}
          </dd>
        </div>
      ))}
    </dl>
  );
}
