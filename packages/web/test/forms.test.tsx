/** @jest-environment jsdom */
import { act, screen, waitFor } from '@testing-library/react';
import '@testing-library/jest-dom';
import userEvent from '@testing-library/user-event';
import { z } from 'zod';
import { checked } from '../src/parts/checked';
import { DraftLines } from '../src/parts/DraftLines';
import { OneFact } from '../src/parts/OneFact';
import { useDraftForm } from '../src/parts/useDraftForm';
import { Input } from '../src/ui/Input';
import { asPage, showAt } from './show';

beforeAll(asPage);
beforeEach(() => sessionStorage.clear());
const user = userEvent.setup();

const schema = z.object({ name: z.string().min(1), cores: z.coerce.number<string>().int().min(1).max(64) });
type Typed = z.input<typeof schema>;
type Read = z.output<typeof schema>;

/** A form of two fields that hands on what was read. */
function Form({ onSave, ask = true }: { onSave: (read: Read) => boolean; ask?: boolean }) {
  const draft = useDraftForm<Typed, Read>({
    values: { name: 'Old Oak', cores: '4' },
    resolver: checked<Typed, Read>(schema),
    draft: 'test',
    ask,
    save: (read) => onSave(read),
  });
  const { form, submit } = draft;
  const { errors } = form.formState;
  return (
    <form onSubmit={(e) => void submit(e)}>
      <DraftLines of={draft} />
      <Input label="Name" error={errors.name?.message} {...form.register('name')} />
      <Input label="Cores" error={errors.cores?.message} {...form.register('cores')} />
      <button type="submit">Save</button>
    </form>
  );
}

describe('a form', () => {
  it('hands on what the schema read, and not what was typed', async () => {
    const saved: Read[] = [];
    showAt(<Form onSave={(r) => saved.push(r) > 0} />);
    await user.clear(screen.getByLabelText('Cores'));
    await user.type(screen.getByLabelText('Cores'), '8{Enter}');
    await waitFor(() => expect(saved).toEqual([{ name: 'Old Oak', cores: 8 }]));
  });

  it('refuses as a whole: every wrong field says so in the house’s words, the first has the focus, nothing is lost', async () => {
    const saved: Read[] = [];
    showAt(<Form onSave={(r) => saved.push(r) > 0} />);
    await user.clear(screen.getByLabelText('Name'));
    await user.clear(screen.getByLabelText('Cores'));
    await user.type(screen.getByLabelText('Cores'), '65');
    await user.click(screen.getByText('Save'));
    await waitFor(() => expect(screen.getByLabelText('Name')).toBeInvalid());
    expect(screen.getByLabelText('Name')).toHaveFocus();
    await waitFor(() =>
      expect(screen.getByLabelText('Name')).toHaveAccessibleErrorMessage('This is empty or too small.'),
    );
    expect(screen.getByLabelText('Cores')).toHaveAccessibleErrorMessage('This is too long or too large.');
    expect(screen.getByLabelText('Cores')).toHaveValue('65');
    expect(saved).toEqual([]);
  });

  it('asks before it is left unsaved; kept as a draft it is there again, and says that it is not saved', async () => {
    const { router, unmount } = showAt(<Form onSave={() => true} />, { '/else': <p>Elsewhere</p> });
    await user.type(screen.getByLabelText('Name'), ' the second');
    await act(() => router.navigate('/else'));
    expect(await screen.findByRole('dialog', { name: 'Not saved yet' })).toBeInTheDocument();
    expect(screen.queryByText('Elsewhere')).toBeNull();
    await user.click(screen.getByText('Go, and keep it as a draft'));
    expect(await screen.findByText('Elsewhere')).toBeInTheDocument();
    unmount();
    showAt(<Form onSave={() => true} />);
    await waitFor(() => expect(screen.getByLabelText('Name')).toHaveValue('Old Oak the second'));
    await user.click(screen.getByText('Throw it away'));
    expect(screen.getByLabelText('Name')).toHaveValue('Old Oak');
    expect(sessionStorage).toHaveLength(0);
  });

  it('goes on once it is saved from the question, and stays where the saving is refused', async () => {
    const { router } = showAt(<Form onSave={({ name }) => name !== 'Old Oak!'} />, {
      '/else': <p>Elsewhere</p>,
    });
    await user.type(screen.getByLabelText('Name'), '!');
    await act(() => router.navigate('/else'));
    await user.click(await screen.findByText('Save and go'));
    await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull());
    expect(router.state.location.pathname).toBe('/');
    await user.type(screen.getByLabelText('Name'), '!');
    await act(() => router.navigate('/else'));
    await user.click(await screen.findByText('Save and go'));
    expect(await screen.findByText('Elsewhere')).toBeInTheDocument();
    expect(sessionStorage).toHaveLength(0);
  });

  it('that was not touched, or was changed back, leaves without a question', async () => {
    const { router } = showAt(<Form onSave={() => true} />, { '/else': <p>Elsewhere</p> });
    await user.type(screen.getByLabelText('Name'), 'x{Backspace}');
    await act(() => router.navigate('/else'));
    expect(await screen.findByText('Elsewhere')).toBeInTheDocument();
  });
});

describe('a single fact', () => {
  const whole = z.coerce.number<string>().int().min(0).max(24);

  it('is kept when its field is left, once, and not where nothing changed', async () => {
    const kept: number[] = [];
    const onKeep = (n: number): Promise<boolean> => Promise.resolve(kept.push(n) > 0);
    showAt(<OneFact label="Hours" value="3" schema={whole} onKeep={onKeep} />);
    await user.click(screen.getByLabelText('Hours'));
    await user.tab();
    expect(kept).toEqual([]);
    await user.type(screen.getByLabelText('Hours'), '{Backspace}6');
    await user.tab();
    expect(kept).toEqual([6]);
  });

  it('that is wrong stays typed, is said at its field, and Escape takes it back', async () => {
    const kept: number[] = [];
    const onKeep = (n: number): Promise<boolean> => Promise.resolve(kept.push(n) > 0);
    showAt(<OneFact label="Hours" value="3" schema={whole} onKeep={onKeep} />);
    const field = screen.getByLabelText('Hours');
    await user.type(field, '0{Enter}');
    expect(field).toHaveAccessibleErrorMessage('This is too long or too large.');
    expect(field).toHaveValue('30');
    await user.keyboard('{Escape}');
    expect(field).toHaveValue('3');
    expect(field).toBeValid();
    expect(kept).toEqual([]);
  });

  it('shows what another act made of it, unless something else is being typed', async () => {
    const { rerender } = showAt(<p />);
    const onKeep = (): Promise<boolean> => Promise.resolve(true);
    const { ChakraProvider } = await import('@chakra-ui/react');
    const { system } = await import('../src/theme');
    const at = (value: string) => (
      <ChakraProvider value={system}>
        <OneFact label="Hours" value={value} schema={whole} onKeep={onKeep} />
      </ChakraProvider>
    );
    rerender(at('3'));
    rerender(at('5'));
    expect(screen.getByLabelText('Hours')).toHaveValue('5');
  });
});
