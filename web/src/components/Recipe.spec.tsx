import { cleanup, screen } from '@testing-library/react';
import { afterEach, describe, expect, test } from 'vitest';
import { renderInStudio } from '../renderInStudio';
import { Recipe } from './Recipe';

afterEach(cleanup);

const glaze = [
  { name: 'Glazing liquid', ml: 7.62, drops: null },
  { name: 'Phthalo blue PB15', ml: 0.38, drops: 8 },
  { name: 'Retarder', ml: 0.04, drops: 1 },
];

describe('what goes into the cup', () => {
  test('is said in millilitres, and in drops where the answer counts them', () => {
    renderInStudio(<Recipe parts={glaze} tub={null} />);
    expect(screen.getByText('7.6 ml Glazing liquid')).toBeDefined();
    expect(screen.getByText('0.38 ml Phthalo blue PB15, 8 drops')).toBeDefined();
    expect(screen.getByText('0.04 ml Retarder, 1 drop')).toBeDefined();
  });

  test('is not said at all of a step that mixes nothing', () => {
    const { container } = renderInStudio(<Recipe parts={[]} tub={null} />);
    expect(container.textContent).toBe('');
  });
});
