import { createContext, useContext, type ReactNode } from 'react';
import type { UseFormReturn, FieldPath } from 'react-hook-form';
import type { DraftProblem, ProfileDraft } from '@zb/core/system/draft';

export type Path = FieldPath<ProfileDraft>;
interface Editing {
  form: UseFormReturn<ProfileDraft>;
  problems: readonly DraftProblem[];
}
export const EditingContext = createContext<Editing | null>(null);
export function useEditing(): Editing {
  const editing = useContext(EditingContext);
  if (!editing) throw new Error('A field of the profile stands outside its editor.');
  return editing;
}

const problemAt = (problems: readonly DraftProblem[], path: string): string | undefined =>
  problems.find((p) => p.path === path || p.path.startsWith(`${path}.`))?.why;

function Frame({
  path,
  label,
  hint,
  children,
}: {
  path: Path;
  label: string;
  hint?: string | undefined;
  children: ReactNode;
}) {
  const why = problemAt(useEditing().problems, path);
  return (
    <label className="field">
      <span>{label}</span>
      {children}
      {why !== undefined ? (
        <span className="sub" role="alert" style={{ color: 'var(--stop)' }}>
          This {why}.
        </span>
      ) : (
        hint && <span className="sub">{hint}</span>
      )}
    </label>
  );
}

export function Text({
  path,
  label,
  hint,
  mono,
}: {
  path: Path;
  label: string;
  hint?: string;
  mono?: boolean;
}) {
  const { form, problems } = useEditing();
  return (
    <Frame path={path} label={label} hint={hint}>
      <input
        className={mono ? 'in mono' : 'in'}
        aria-invalid={problemAt(problems, path) !== undefined}
        {...form.register(path)}
      />
    </Frame>
  );
}

export function Lines({ path, label, hint }: { path: Path; label: string; hint?: string }) {
  const { form } = useEditing();
  return (
    <Frame path={path} label={label} hint={hint}>
      <textarea className="in" rows={5} {...form.register(path)} />
    </Frame>
  );
}

export function Pick({
  path,
  label,
  hint,
  options,
  none,
}: {
  path: Path;
  label: string;
  hint?: string;
  options: readonly string[];
  none?: string;
}) {
  const { form } = useEditing();
  return (
    <Frame path={path} label={label} hint={hint}>
      <select className="in" {...form.register(path)}>
        {none !== undefined && <option value="">{none}</option>}
        {options.map((o) => (
          <option key={o}>{o}</option>
        ))}
      </select>
    </Frame>
  );
}

export function Tick({ path, label }: { path: Path; label: string }) {
  const { form } = useEditing();
  return (
    <label className="check">
      <input type="checkbox" {...form.register(path)} />
      <span>{label}</span>
    </label>
  );
}

/** Several of a few words; the form keeps them as a list. */
export function Several({ path, label, options }: { path: Path; label: string; options: readonly string[] }) {
  const { form, problems } = useEditing();
  const why = problemAt(problems, path);
  return (
    <fieldset className="wide">
      <legend className="h6">{label}</legend>
      <div className="actions">
        {options.map((o) => (
          <label className="check" key={o}>
            <input type="checkbox" value={o} {...form.register(path)} />
            <span>{o}</span>
          </label>
        ))}
      </div>
      {why !== undefined && (
        <span className="sub" role="alert" style={{ color: 'var(--stop)' }}>
          Take at least one.
        </span>
      )}
    </fieldset>
  );
}
