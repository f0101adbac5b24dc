/** One of a few words. */
export function Choice<T extends string>({
  label,
  value,
  options,
  onPick,
}: {
  label: string;
  value: T;
  options: readonly T[];
  onPick: (value: T) => void;
}) {
  return (
    <label className="field">
      <span>{label}</span>
      <select className="in" value={value} onChange={(e) => onPick(e.target.value as T)}>
        {options.map((o) => (
          <option key={o}>{o}</option>
        ))}
      </select>
    </label>
  );
}

export function Count({
  label,
  value,
  onPick,
}: {
  label: string;
  value: number;
  onPick: (n: number) => void;
}) {
  return (
    <label className="field">
      <span>{label}</span>
      <input
        className="in mono"
        type="number"
        min={0}
        max={16}
        value={value}
        onChange={(e) => {
          const n = Number(e.target.value);
          if (Number.isInteger(n) && n >= 0 && n <= 16) onPick(n);
        }}
      />
    </label>
  );
}
