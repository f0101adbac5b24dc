import { createContext, useContext, type ReactNode } from 'react';
import { useWatch, type UseFormReturn, type FieldPath } from 'react-hook-form';
import { originPath, type DraftProblem, type ProfileDraft } from '@zb/core/system/draft';
import { originWords } from '@zb/core/words/origin';

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

/** Where a value comes from that nobody typed; a guess is said to be right by a person. */
function From({ path: field, label }: { path: string; label: string }) {
  const { form } = useEditing();
  const path = originPath(field);
  const origins = useWatch({ control: form.control, name: 'origins' });
  const origin = origins[path];
  if (!origin) return null;
  const own = (): void => {
    const { [path]: _, ...rest } = origins;
    form.setValue('origins', rest, { shouldDirty: true });
  };
  return (
    <span className="sub">
      {origin.code === 'not said' ? (
        <>
          <b className="g g-check">Not said</b> {originWords(origin)}.{' '}
          <button type="button" className="link" onClick={own} aria-label={`${label}: it is right`}>
            It is right
          </button>
        </>
      ) : (
        originWords(origin)
      )}
    </span>
  );
}

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
    <div>
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
      <From path={path} label={label} />
    </div>
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
    <div>
      <label className="check">
        <input type="checkbox" {...form.register(path)} />
        <span>{label}</span>
      </label>
      <From path={path} label={label} />
    </div>
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
      <From path={path} label={label} />
    </fieldset>
  );
}
