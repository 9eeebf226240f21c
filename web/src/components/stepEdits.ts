/** What can be done to the steps of a picture, as functions of the picture. */
import type { Schemas } from '../api/client';

export type Step = Schemas['StepDoc'];
/** An edit of a picture, as a function of it. */
export type Change = (picture: Schemas['PictureDoc']) => Schemas['PictureDoc'];

/** A step name that the picture does not use yet. */
export function freshId(steps: Step[]): string {
  let n = steps.length + 1;
  while (steps.some((s) => s.id === `s${n}`)) n += 1;
  return `s${n}`;
}

const withSteps =
  (of: (steps: Step[]) => Step[]): Change =>
  (picture) => ({ ...picture, steps: of(picture.steps ?? []) });

/** Adds a step at the end, or replaces the one of its name. */
export const putStep = (step: Step): Change =>
  withSteps((steps) =>
    steps.some((s) => s.id === step.id)
      ? steps.map((s) => (s.id === step.id ? step : s))
      : [...steps, { ...step, id: freshId(steps) }],
  );

/** Takes a step out; steps that stood on it stand on what it stood on. */
export const removeStep = (id: string): Change =>
  withSteps((steps) => {
    const gone = steps.find((s) => s.id === id);
    return steps
      .filter((s) => s.id !== id)
      .map((s) =>
        s.after?.includes(id)
          ? {
              ...s,
              after: [...new Set(s.after.flatMap((a) => (a === id ? (gone?.after ?? []) : [a])))],
            }
          : s,
      );
  });

/** A copy right after the step, not laid yet. */
export const duplicateStep = (id: string): Change =>
  withSteps((steps) =>
    steps.flatMap((s) =>
      s.id === id ? [s, { ...s, id: freshId(steps), laid_at: undefined, cup_g: undefined }] : [s],
    ),
  );

/** Moves a step one place up (-1) or down (1). */
export const moveStep = (id: string, by: -1 | 1): Change =>
  withSteps((steps) => {
    const from = steps.findIndex((s) => s.id === id);
    const step = steps[from];
    const to = from + by;
    if (!step || to < 0 || to >= steps.length) return steps;
    const rest = steps.filter((s) => s.id !== id);
    return [...rest.slice(0, to), step, ...rest.slice(to)];
  });

/** Takes a log entry back: the step is still to do. */
export const unlay = (id: string): Change =>
  withSteps((steps) => steps.map((s) => (s.id === id ? { ...s, laid_at: undefined } : s)));

type Finding = Pick<Schemas['FindingOut'], 'rule' | 'step'>;

const without = (aside: Schemas['SetAsideDoc'][] | undefined, finding: Finding) =>
  (aside ?? []).filter((a) => a.rule !== finding.rule || a.step !== finding.step);

/** Sets a finding aside with a reason. */
export const setAside =
  (finding: Finding, reason: string, at: string): Change =>
  (picture) => ({
    ...picture,
    set_aside: [
      ...without(picture.set_aside, finding),
      { rule: finding.rule, step: finding.step, reason, at },
    ],
  });

/** Lets a finding stand again. */
export const bringBack =
  (finding: Finding): Change =>
  (picture) => ({ ...picture, set_aside: without(picture.set_aside, finding) });
