import { Box } from '@chakra-ui/react';
import { createContext, useContext } from 'react';
import { Controller, useWatch, type UseFormReturn, type FieldPath } from 'react-hook-form';
import type { Profile } from '@zb/core/model/bench';
import { originPath, type DraftProblem, type ProfileDraft } from '@zb/core/system/draft';
import { originWords } from '@zb/core/words/origin';
import { Word } from '../../ui/Button';
import { Checkbox } from '../../ui/Checkbox';
import { Input, Lines } from '../../ui/Input';
import { HazardMark } from '../../ui/Marks';
import { Select } from '../../ui/Select';
import { Acts, Head, Sub } from '../../ui/Words';

export type Path = FieldPath<ProfileDraft>;
interface Editing {
  form: UseFormReturn<ProfileDraft, unknown, Profile>;
  problems: readonly DraftProblem[];
}
export const EditingContext = createContext<Editing | null>(null);
export function useEditing(): Editing {
  const editing = useContext(EditingContext);
  if (!editing) throw new Error('A field of the profile stands outside its editor.');
  return editing;
}

/** What is wrong with a field; a list, or what the form takes apart, answers for what lies in it. */
function useProblem(path: string): string | undefined {
  const { problems } = useEditing();
  const why = problems.find((p) => p.path === path || p.path.startsWith(`${path}.`))?.why;
  return why === undefined ? undefined : `This ${why}.`;
}

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
    <Sub>
      {origin.code === 'not said' ? (
        <>
          <HazardMark grade="check" words="Not said" /> {originWords(origin)}.{' '}
          <Word onClick={own} aria-label={`${label}: it is right`}>
            It is right
          </Word>
        </>
      ) : (
        originWords(origin)
      )}
    </Sub>
  );
}

interface One {
  path: Path;
  label: string;
  hint?: string;
}

export function Text({ path, label, hint, mono = false }: One & { mono?: boolean }) {
  const { form } = useEditing();
  return (
    <div>
      <Input label={label} help={hint} error={useProblem(path)} data={mono} {...form.register(path)} />
      <From path={path} label={label} />
    </div>
  );
}

export function Paragraph({ path, label, hint }: One) {
  const { form } = useEditing();
  return (
    <div>
      <Lines label={label} help={hint} error={useProblem(path)} rows={5} {...form.register(path)} />
      <From path={path} label={label} />
    </div>
  );
}

export function Pick({
  path,
  label,
  hint,
  options,
  none,
}: One & { options: readonly string[]; none?: string }) {
  const { form } = useEditing();
  return (
    <div>
      <Select
        label={label}
        help={hint}
        error={useProblem(path)}
        options={options}
        {...(none === undefined ? {} : { none })}
        {...form.register(path)}
      />
      <From path={path} label={label} />
    </div>
  );
}

export function Tick({ path, label }: One) {
  const { form } = useEditing();
  return (
    <div>
      <Controller
        control={form.control}
        name={path}
        render={({ field }) => (
          <Checkbox checked={field.value === true} onChange={field.onChange}>
            {label}
          </Checkbox>
        )}
      />
      <From path={path} label={label} />
    </div>
  );
}

/** Several of a few words; the form keeps them as a list. */
export function Several({ path, label, options }: One & { options: readonly string[] }) {
  const { form } = useEditing();
  const why = useProblem(path);
  return (
    <Box role="group" aria-label={label} gridColumn="1 / -1">
      <Head as="h3">{label}</Head>
      <Controller
        control={form.control}
        name={path}
        render={({ field }) => {
          const taken = Array.isArray(field.value) ? (field.value as string[]) : [];
          return (
            <Acts columnGap="4">
              {options.map((o) => (
                <Checkbox
                  key={o}
                  checked={taken.includes(o)}
                  onChange={(on) => field.onChange(on ? [...taken, o] : taken.filter((t) => t !== o))}
                >
                  {o}
                </Checkbox>
              ))}
            </Acts>
          );
        }}
      />
      {why !== undefined && (
        <Sub role="alert" color="stop">
          Take at least one.
        </Sub>
      )}
      <From path={path} label={label} />
    </Box>
  );
}
