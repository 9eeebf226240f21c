import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { ApiError } from '../api/client';
import { LogDialog, type LogEntry } from './LogDialog';

afterEach(cleanup);

const NOW = Date.parse('2027-01-14T16:34:00Z');

function open(planned: number | undefined, error?: unknown) {
  const onLog = vi.fn<(entry: LogEntry) => void>();
  render(
    <LogDialog
      title="Glaze 3"
      planned={planned}
      zone="Europe/Oslo"
      now={NOW}
      pending={false}
      error={error}
      onLog={onLog}
      onClose={vi.fn()}
    />,
  );
  return onLog;
}

const log = () => fireEvent.click(screen.getByRole('button', { name: 'Log it' }));

describe('logging a coat', () => {
  it('takes now in the studio, as planned, unless something else is said', () => {
    const onLog = open(40);
    expect(screen.getByLabelText<HTMLInputElement>('When the coat was there').value).toBe(
      '2027-01-14T17:34',
    );
    log();
    // The server's own clock says when: a count made a moment ago comes before it.
    expect(onLog).toHaveBeenCalledWith({});
  });

  it('takes the amount that was used, with a comma too', () => {
    const onLog = open(40);
    fireEvent.click(screen.getByRole('radio', { name: 'Amount used, ml' }));
    const field = screen.getByLabelText('Mix on the picture, ml');
    fireEvent.change(field, { target: { value: 'much' } });
    expect(screen.getByText('Give a number.')).toBeTruthy();
    log();
    expect(onLog).not.toHaveBeenCalled();
    fireEvent.change(field, { target: { value: '7,5' } });
    log();
    const time = screen.getByLabelText('When the coat was there');
    fireEvent.change(time, { target: { value: '2027-01-14T17:20' } });
    log();
    expect(onLog).toHaveBeenCalledWith({ amount_ml: 7.5 });
    expect(onLog).toHaveBeenLastCalledWith({ at: '2027-01-14T16:20:00.000Z', amount_ml: 7.5 });
  });

  it('asks a step without film for its time alone', () => {
    open(undefined);
    expect(screen.getByLabelText('When it was done')).toBeTruthy();
    expect(screen.queryByRole('radiogroup')).toBeNull();
  });

  it('says a refusal next to the field it is about', () => {
    const problem = {
      type: 'urn:ulvek:problem:refused',
      title: 'Input refused',
      status: 422,
      detail: 'at: a coat cannot have been laid in the future',
      path: 'at',
    };
    open(40, new ApiError(problem));
    const field = screen.getByLabelText('When the coat was there');
    expect(field.getAttribute('aria-invalid')).toBe('true');
    expect(screen.getByText('a coat cannot have been laid in the future')).toBeTruthy();
    expect(screen.queryByRole('alert')).toBeNull();
  });

  it('says every other trouble above the buttons', () => {
    open(40, new Error('The database does not answer just now.'));
    expect(screen.getByRole('alert').textContent).toBe('The database does not answer just now.');
  });
});
