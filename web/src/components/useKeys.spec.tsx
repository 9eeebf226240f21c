import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, expect, it, vi } from 'vitest';
import { useActiveKeys, useKeys } from './useKeys';

afterEach(cleanup);

function View({ name, run }: { name: string; run: () => void }) {
  useKeys([{ key: 'l', does: `Log in ${name}`, run }]);
  return <input aria-label={name} />;
}

function List() {
  return (
    <ul>
      {useActiveKeys().map((k) => (
        <li key={k.does}>{k.does}</li>
      ))}
    </ul>
  );
}

it('the key of the view opened last counts, and goes with it', () => {
  const [outer, inner] = [vi.fn(), vi.fn()];
  const { rerender } = render(
    <>
      <View name="outer" run={outer} />
      <View name="inner" run={inner} />
      <List />
    </>,
  );
  fireEvent.keyDown(document.body, { key: 'l' });
  expect([outer.mock.calls.length, inner.mock.calls.length]).toEqual([0, 1]);
  expect(screen.getAllByRole('listitem').map((li) => li.textContent)).toEqual([
    'Log in outer',
    'Log in inner',
  ]);
  rerender(
    <>
      <View name="outer" run={outer} />
      <List />
    </>,
  );
  fireEvent.keyDown(document.body, { key: 'l' });
  expect(outer).toHaveBeenCalledOnce();
});

it('a key that is typed into a field, or with a modifier, is left to it', () => {
  const run = vi.fn();
  render(<View name="field" run={run} />);
  fireEvent.keyDown(screen.getByLabelText('field'), { key: 'l' });
  fireEvent.keyDown(document.body, { key: 'l', ctrlKey: true });
  expect(run).not.toHaveBeenCalled();
});

it('always runs what the last rendering meant', () => {
  const [first, second] = [vi.fn(), vi.fn()];
  const { rerender } = render(<View name="v" run={first} />);
  rerender(<View name="v" run={second} />);
  fireEvent.keyDown(document.body, { key: 'l' });
  expect([first.mock.calls.length, second.mock.calls.length]).toEqual([0, 1]);
});
