import { cleanup, render, screen, within } from '@testing-library/react';
import { MemoryRouter } from 'react-router';
import { afterEach, expect, it } from 'vitest';
import type { Schemas } from '../../api/client';
import { Cautions } from './Cautions';
import { NowList } from './NowList';

afterEach(cleanup);

const finding = (
  severity: Schemas['FindingOut']['severity'],
  what: string,
): Schemas['FindingOut'] => ({
  rule: what,
  severity,
  step: 's1',
  title: 'Glaze 1',
  what,
  remedy: 'Do less.',
  set_aside: null,
  provenance: '[practice]',
});

const picture = (title: string, findings: Schemas['FindingOut'][]) =>
  ({ id: title, title, findings }) as Schemas['PictureOutlook'];

it('cautions stand heaviest first, each with its picture, its step and what to do', () => {
  const pictures = [
    picture('Lamp', [finding('note', 'Dust.'), finding('stop', 'Too cold.')]),
    picture('Glass', [finding('caution', 'Too thick.')]),
  ];
  // What is only good to know is said of the step that comes next: not of that of Glass.
  pictures[1]?.findings.push(finding('note', 'Wring it out.'));
  const next = { picture: 'Lamp', step: 's1' };
  render(<Cautions pictures={pictures} next={next} />, { wrapper: MemoryRouter });
  const said = within(screen.getByRole('region', { name: 'Cautions' }))
    .getAllByRole('listitem')
    .map((li) => li.textContent);
  expect(said).toEqual([
    'Lamp, Glaze 1: Too cold. Do less.',
    'Glass, Glaze 1: Too thick. Do less.',
    'Lamp, Glaze 1: Dust. Do less.',
  ]);
});

it('no caution, no list', () => {
  const { container } = render(<Cautions pictures={[picture('Lamp', [])]} />, {
    wrapper: MemoryRouter,
  });
  expect(container.textContent).toBe('');
});

it('a list of the opening view says so when it is empty, and leads to its pictures when not', () => {
  const { rerender } = render(
    <NowList title="Leave alone" empty="Everything may be touched." items={[]} />,
    {
      wrapper: MemoryRouter,
    },
  );
  expect(screen.getByText('Everything may be touched.')).toBeTruthy();
  const item = { id: 'p1', lead: 'until 18:43', title: 'Two carboys', text: 'Glaze 2 is setting' };
  rerender(<NowList title="Leave alone" empty="Everything may be touched." items={[item]} />);
  expect(screen.getByRole('link', { name: 'Two carboys' }).getAttribute('href')).toBe(
    '/pictures/p1',
  );
  expect(screen.queryByText('Everything may be touched.')).toBeNull();
});
