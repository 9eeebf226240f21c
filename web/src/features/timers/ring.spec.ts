import { afterEach, expect, test, vi } from 'vitest';
import { ring } from './ring';

afterEach(() => vi.unstubAllGlobals());

test.each([
  ['granted', ['Sets: Glaze 2']],
  ['denied', []],
])('a bell rings in the page, and outside it where that is %s', (permission, said) => {
  const told: string[] = [];
  const started = vi.fn();
  const node = {
    frequency: {},
    gain: { setValueAtTime: vi.fn(), exponentialRampToValueAtTime: vi.fn() },
    connect: () => node,
    start: started,
    stop: vi.fn(),
  };
  class Sound {
    currentTime = 0;
    createOscillator = () => node;
    createGain = () => node;
  }
  const note = Object.assign(
    function (what: string) {
      told.push(what);
    },
    { permission },
  );
  vi.stubGlobal('AudioContext', Sound);
  vi.stubGlobal('Notification', note);
  ring('Sets: Glaze 2');
  expect(told).toEqual(said);
  expect(started).toHaveBeenCalledOnce();
});
