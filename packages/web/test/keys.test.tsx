/** @jest-environment jsdom */
import { act, fireEvent, screen, waitFor } from '@testing-library/react';
import '@testing-library/jest-dom';
import userEvent from '@testing-library/user-event';
import { useState } from 'react';
import Keys from '../src/app/Keys';
import { useTyped } from '../src/app/useTyped';
import { setLetters, Shortcuts } from '../src/parts/Shortcuts';
import { DragArea, Draggable, DropPlace } from '../src/ui/Drag';
import { IconButton } from '../src/ui/IconButton';
import { Moment } from '../src/ui/Moment';
import { asPage, showAt } from './show';

beforeAll(asPage);
afterEach(() => act(() => setLetters(true)));
const user = userEvent.setup();

describe('shortcuts', () => {
  const done: string[] = [];
  const Screen = ({ more = true }: { more?: boolean }) => (
    <>
      <Shortcuts
        list={[
          { keys: 'k', does: 'pin it', act: () => done.push('k') },
          { keys: 'mod+enter', does: 'sign it off', act: () => done.push('sign') },
          { keys: '/', does: 'find', act: () => done.push('/') },
          { keys: 'x', does: 'forbid it', act: more ? () => done.push('x') : undefined },
        ]}
      />
      <input aria-label="Name" />
      <Keys onClose={() => undefined} />
    </>
  );
  const Bare = () => (
    <>
      <Shortcuts
        list={[
          { keys: 'k', does: 'pin it', act: () => done.push('k') },
          { keys: 'mod+enter', does: 'sign it off', act: () => done.push('sign') },
          { keys: '/', does: 'find', act: () => done.push('/') },
        ]}
      />
      <input aria-label="Name" />
    </>
  );
  beforeEach(() => (done.length = 0));

  it('count on the page, with whatever key a sign is reached by, and never while something is typed', async () => {
    showAt(<Bare />);
    await user.keyboard('k/');
    fireEvent.keyDown(document.body, { key: '/', code: 'Digit7', shiftKey: true });
    expect(done).toEqual(['k', '/', '/']);
    await user.type(screen.getByLabelText('Name'), 'k/');
    expect(done).toHaveLength(3);
  });

  it('of one letter can be switched off; those with a modifier go on', async () => {
    showAt(<Bare />);
    act(() => setLetters(false));
    await user.keyboard('k/');
    await user.keyboard('{Control>}{Enter}{/Control}');
    expect(done).toEqual(['sign']);
  });

  it('are listed by themselves, those that do nothing here left out', () => {
    showAt(<Screen more={false} />);
    const rows = screen.getAllByRole('row', { hidden: true }).map((r) => r.textContent);
    expect(rows).toEqual(expect.arrayContaining(['Kpin it', 'Ctrl or ⌘Entersign it off', '/find']));
    expect(rows.join()).not.toContain('forbid');
  });

  it('do not count behind a dialog', async () => {
    showAt(<Screen />);
    await user.keyboard('k');
    expect(done).toEqual([]);
  });

  it('leave the arrows to a thing that was taken by keys, until it is put down', async () => {
    showAt(
      <>
        <Shortcuts list={[{ keys: 'arrowright', does: 'next stop', act: () => done.push('next') }]} />
        <DragArea onDrop={() => undefined} nameOf={(id) => id}>
          <Draggable id="disk" name="the disk">
            <p>disk</p>
          </Draggable>
          <DropPlace id="pool">pool</DropPlace>
        </DragArea>
      </>,
    );
    const handle = screen.getByRole('button', { name: 'Take the disk elsewhere' });
    handle.focus();
    await user.keyboard('{ArrowRight}');
    expect(done).toEqual(['next']);
    fireEvent.keyDown(handle, { code: 'Space', key: ' ' });
    await waitFor(() => expect(handle).toHaveAttribute('aria-pressed', 'true'));
    fireEvent.keyDown(handle, { code: 'ArrowRight', key: 'ArrowRight' });
    expect(done).toEqual(['next']);
    await act(() => new Promise((r) => setTimeout(r)));
    fireEvent.keyDown(handle, { code: 'Space', key: ' ' });
    await waitFor(() => expect(handle).not.toHaveAttribute('aria-pressed'));
    await user.keyboard('{ArrowRight}');
    expect(done).toEqual(['next', 'next']);
  });
});

/** A line to type into that is there only after a while, as one that is fetched is. */
function Late() {
  const [waiting, setWaiting] = useState(false);
  const [there, setThere] = useState(false);
  const typed = useTyped(waiting);
  const [words, setWords] = useState('');
  return (
    <>
      <button onClick={() => setWaiting(true)}>begin</button>
      <button onClick={() => setThere(true)}>arrive</button>
      {there && (
        <input
          aria-label="Find"
          value={words}
          onFocus={() => setWords((w) => w + typed())}
          onChange={(e) => setWords(e.target.value)}
        />
      )}
    </>
  );
}

it('nothing typed before a line stands is lost, and none of it is a shortcut', async () => {
  const seen: string[] = [];
  document.addEventListener('keydown', (e) => seen.push(e.key));
  showAt(<Late />);
  await user.click(screen.getByText('begin'));
  await user.keyboard('7CX{Backspace}20');
  expect(seen).toEqual([]);
  await user.click(screen.getByText('arrive'));
  await user.click(screen.getByLabelText('Find'));
  expect(screen.getByLabelText('Find')).toHaveValue('7C20');
  await user.keyboard('!');
  expect(screen.getByLabelText('Find')).toHaveValue('7C20!');
});

it('an icon tells its word and its key to a mouse and to keys, and always to those who hear the page', async () => {
  showAt(<IconButton word="Undo" keys="Ctrl Z" icon={<svg />} />);
  const button = screen.getByRole('button', { name: 'Undo' });
  expect(screen.queryByText('Undo (Ctrl Z)')).toBeNull();
  fireEvent.pointerEnter(button, { pointerType: 'mouse' });
  expect(await screen.findByText('Undo (Ctrl Z)')).toBeInTheDocument();
  fireEvent.pointerLeave(button, { pointerType: 'mouse' });
  expect(screen.queryByText('Undo (Ctrl Z)')).toBeNull();
});

it('a moment is short by the clock of the place, and exact when it is asked for', async () => {
  showAt(<Moment at="2021-03-05T18:42:07.000Z" />);
  await user.click(screen.getByRole('button'));
  expect(await screen.findByText(/Fri 5 Mar 2021, \d\d:42:07 GMT/)).toBeInTheDocument();
});
