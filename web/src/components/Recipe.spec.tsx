import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, test } from 'vitest';
import { renderInStudio } from '../renderInStudio';
import { Recipe } from './Recipe';

afterEach(cleanup);

const glaze = [
  { ml: 7.62, said: '7.6 ml Glazing liquid' },
  { ml: 0.38, said: '0.38 ml Phthalo blue PB15, 8 drops' },
];

describe('what goes into the cup', () => {
  test('is said part by part with the whole, or in a line', () => {
    renderInStudio(<Recipe parts={glaze} tub={null} />);
    const lines = screen.getAllByRole('listitem').map((line) => line.textContent);
    expect(lines).toEqual([...glaze.map((part) => part.said), '8 ml in all']);
    cleanup();
    renderInStudio(<Recipe parts={glaze} tub={null} short />);
    const line = '8 ml: 7.6 ml Glazing liquid + 0.38 ml Phthalo blue PB15, 8 drops';
    expect(screen.getByText(line)).toBeDefined();
  });

  test('from a tub is what is taken out of it', () => {
    renderInStudio(<Recipe parts={glaze} tub="Fog grey" />);
    expect(screen.getByText('8 ml: from the tub “Fog grey”')).toBeDefined();
  });

  test('is not said at all of a step that mixes nothing', () => {
    const { container } = renderInStudio(<Recipe parts={[]} tub={null} />);
    expect(container.textContent).toBe('');
  });
});
