/** What can be done to the steps of a picture, as functions of the picture. */
import type { Schemas } from '../api/client';
import { stepsRepeated, stepsWithout } from '../api/edits';

export type Step = Schemas['StepDoc'];
type Picture = Schemas['PictureDoc'];
/** An edit of a picture, as a function of it. */
export type Change = (picture: Picture) => Picture | Promise<Picture>;

/** A step name that the picture does not use yet. */
function freshId(steps: Step[]): string {
  let n = steps.length + 1;
  while (steps.some((s) => s.id === `s${n}`)) n += 1;
  return `s${n}`;
}

const withSteps =
  (of: (steps: Step[]) => Step[]) =>
  (picture: Picture): Picture => ({ ...picture, steps: of(picture.steps ?? []) });

/** Adds a step at `place` (at the end when none is said), or replaces the one of its name. */
export const putStep = (step: Step, place?: number) =>
  withSteps((steps) =>
    steps.some((s) => s.id === step.id)
      ? steps.map((s) => (s.id === step.id ? step : s))
      : steps.toSpliced(place ?? steps.length, 0, { ...step, id: freshId(steps) }),
  );

/** Takes a step out. What stands on what then is the server's to say. */
export const takeStepOut =
  (id: string) =>
  async (picture: Picture): Promise<Picture> => ({
    ...picture,
    steps: await stepsWithout(picture.steps ?? [], id),
  });

/** The step as `coats` coats, the new ones right after it and not laid yet. What stands on what then is
 * the server's to say. */
export const repeatStep =
  (id: string, coats: number) =>
  async (picture: Picture): Promise<Picture> => ({
    ...picture,
    steps: await stepsRepeated(picture.steps ?? [], id, coats),
  });

/** Moves a step one place up (-1) or down (1). */
export const moveStep = (id: string, by: -1 | 1) =>
  withSteps((steps) => {
    const from = steps.findIndex((s) => s.id === id);
    const step = steps[from];
    const to = from + by;
    if (!step || to < 0 || to >= steps.length) return steps;
    const rest = steps.filter((s) => s.id !== id);
    return [...rest.slice(0, to), step, ...rest.slice(to)];
  });

/** Takes a log entry back: the step is still to do. */
export const unlay = (id: string) =>
  withSteps((steps) => steps.map((s) => (s.id === id ? { ...s, laid_at: undefined } : s)));

type Finding = Pick<Schemas['FindingOut'], 'rule' | 'step'>;

const without = (aside: Schemas['SetAsideDoc'][] | undefined, finding: Finding) =>
  (aside ?? []).filter((a) => a.rule !== finding.rule || a.step !== finding.step);

/** Sets a finding aside with a reason. */
export const setAside =
  (finding: Finding, reason: string, at: string) =>
  (picture: Picture): Picture => ({
    ...picture,
    set_aside: [
      ...without(picture.set_aside, finding),
      { rule: finding.rule, step: finding.step, reason, at },
    ],
  });

/** Lets a finding stand again. */
export const bringBack =
  (finding: Finding) =>
  (picture: Picture): Picture => ({ ...picture, set_aside: without(picture.set_aside, finding) });
