import { ThemeProvider } from '@mui/material/styles';
import { cleanup, fireEvent, render, screen } from '@testing-library/react';
import { afterEach, describe, expect, it, vi } from 'vitest';
import { makeTheme } from '../theme/theme';
import { Cup } from './Cup';
import { Legend } from './Legend';
import { Rail, type Mark } from './Rail';

afterEach(cleanup);

const NOW = Date.parse('2027-01-14T16:34:00Z');
const HOUR = 3_600_000;

const mark = (id: string, at: number, open = vi.fn()): Mark => ({
  id,
  at,
  shape: 'film',
  short: `${id}: paintable`,
  full: `${id} is paintable: the next coat is safe`,
  weight: 1,
  open,
});

function rail(marks: Mark[]) {
  return render(
    <ThemeProvider theme={makeTheme('light')}>
      <Rail
        from={NOW - 3 * HOUR}
        to={NOW + 21 * HOUR}
        now={NOW}
        zone="Europe/Oslo"
        sessions={[{ from: '2027-01-14T16:00:00Z', to: '2027-01-14T20:00:00Z' }]}
        air={[0, 1, 2].map((h) => ({
          at: new Date(NOW + h * HOUR).toISOString(),
          temperature_c: 20,
          relative_humidity: 0.5,
        }))}
        marks={marks}
        width={900}
      />
    </ThemeProvider>,
  );
}

describe('the drying rail', () => {
  it('marks what changes, labels what is coming, and leaves out what is far', () => {
    rail([
      mark('Past', NOW - HOUR),
      mark('Soon', NOW + 2 * HOUR + 1),
      mark('Far', NOW + 30 * HOUR),
    ]);
    expect(screen.getAllByRole('link').map((l) => l.getAttribute('aria-label'))).toEqual([
      'Past is paintable: the next coat is safe',
      'Soon is paintable: the next coat is safe',
    ]);
    // Rounded up: nothing is called ready a moment early.
    expect(screen.getByText('19:35')).toBeTruthy();
    expect(screen.queryByText(/Past: paintable/)).toBeNull();
  });

  it('opens the picture of a mark by click and by key', () => {
    const open = vi.fn();
    rail([mark('Soon', NOW + 2 * HOUR, open)]);
    const link = screen.getByRole('link');
    fireEvent.click(link);
    fireEvent.keyDown(link, { key: 'Enter' });
    fireEvent.keyDown(link, { key: 'a' });
    expect(open).toHaveBeenCalledTimes(2);
  });
});

it('the legend names every texture once', () => {
  render(
    <ThemeProvider theme={makeTheme('dim')}>
      <Legend />
    </ThemeProvider>,
  );
  expect(screen.getAllByRole('listitem').map((li) => li.textContent)).toEqual([
    'workable',
    'setting',
    'touch-dry',
    'paintable',
    'dry through',
    'ready to seal',
  ]);
});

describe('the cup', () => {
  const cup = (retarder?: { share: number; limit: number }) =>
    render(
      <ThemeProvider theme={makeTheme('light')}>
        <Cup
          layers={[
            { id: 'a', name: 'Glazing liquid', share: 0.8, colour: '#dcd8cc' },
            { id: 'b', name: 'Retarder', share: 0.2 },
          ]}
          totalMl={10}
          retarder={retarder}
        />
      </ThemeProvider>,
    );

  it('says what is in it, and how much at each mark', () => {
    cup();
    expect(screen.getByRole('img').getAttribute('aria-label')).toBe(
      'A cup of 10.0 ml: 80.0 % Glazing liquid, 20.0 % Retarder',
    );
    for (const ml of ['2.5 ml', '5.0 ml', '7.5 ml', '10.0 ml'])
      expect(screen.getByText(ml)).toBeTruthy();
  });

  it('draws the limit of retarder where it bites, and warm when it is passed', () => {
    const harm = makeTheme('light').greys.harm;
    const dashed = (root: HTMLElement) => root.querySelector('line[stroke-dasharray="8 4"]');
    expect(dashed(cup().container)).toBeNull();
    cleanup();
    const sound = dashed(cup({ share: 0.1, limit: 0.15 }).container);
    expect(sound?.getAttribute('stroke')).not.toBe(harm);
    cleanup();
    const broken = dashed(cup({ share: 0.2, limit: 0.15 }).container);
    expect(broken?.getAttribute('stroke')).toBe(harm);
    expect(broken?.getAttribute('y1')).toBe(sound?.getAttribute('y1'));
  });
});
