import { describe, expect, it } from 'vitest';
import { moveStep, putStep, type Step } from './stepEdits';

const step = (id: string, extra: Partial<Step> = {}): Step => ({
  id,
  kind: 'glaze',
  hands_on_min: 40,
  ...extra,
});

const picture = (...steps: Step[]) => ({ id: 'p', title: 'p', width_cm: 30, height_cm: 40, steps });

const ids = (p: { steps?: Step[] }) => p.steps?.map((s) => s.id);

describe('steps', () => {
  const three = picture(
    step('s1'),
    step('s2', { laid_at: '2027-01-01T10:00:00Z' }),
    step('s3', { after: ['s2'] }),
  );

  it('are moved by one place and stop at the ends', () => {
    expect(ids(moveStep('s1', 1)(three))).toEqual(['s2', 's1', 's3']);
    expect(ids(moveStep('s3', -1)(three))).toEqual(['s1', 's3', 's2']);
    expect(ids(moveStep('s1', -1)(three))).toEqual(['s1', 's2', 's3']);
  });

  it('are added at the end or replaced in place', () => {
    expect(ids(putStep(step(''))(three))).toEqual(['s1', 's2', 's3', 's4']);
    expect(putStep(step('s1', { hands_on_min: 5 }))(three).steps?.[0]?.hands_on_min).toBe(5);
  });
});
