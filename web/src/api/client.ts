/** The typed client of the API: the only place that fetches. */
import createClient from 'openapi-fetch';
import { hear } from './clock';
import type { components, paths } from './schema';

export type Schemas = components['schemas'];
export type Problem = Schemas['Problem'];

export const client = createClient<paths>({
  baseUrl: window.location.origin,
  fetch: async (request) => {
    const response = await globalThis.fetch(request);
    hear(response);
    return response;
  },
});

/** A problem as it is said to a painter: the place in a picture's steps in words, not in brackets. Of what
 * was brought as a file the place stays as it is written there. */
function saidTo({ path, detail }: Problem): string {
  const step = path?.match(/^(?:draft\.pictures\[\d+\]\.picture\.)?steps\[(\d+)\](\.\w)?/);
  if (!path || !step) return detail;
  const why = detail.replace(`${path}: `, '');
  // What is wrong with a step as a whole names it itself.
  return step[2] ? `Step ${Number(step[1]) + 1}: ${why}` : why;
}

/** An answer that is a problem document, or no answer at all. */
export class ApiError extends Error {
  constructor(
    readonly problem: Problem,
    readonly requestId?: string,
  ) {
    super(saidTo(problem));
    this.name = 'ApiError';
  }
}

const AWAY: Problem = {
  type: 'urn:ulvek:problem:no-answer',
  title: 'No answer',
  status: 0,
  detail: 'Ulvek does not answer. What you see may be old; nothing you typed is lost.',
};

/** Whether an answer only says how far a long computation is. */
export const isGoing = (answer: object | undefined): answer is Schemas['Going'] =>
  answer !== undefined && 'done' in answer && 'of' in answer;

interface Answer<T> {
  data?: T;
  error?: unknown;
  response: Response;
}

/** Waits for an answer and returns its data, or throws an `ApiError`. */
export async function unwrap<T>(asked: Promise<Answer<T>>): Promise<T> {
  let answer: Answer<T>;
  try {
    answer = await asked;
  } catch {
    throw new ApiError(AWAY);
  }
  if (answer.response.ok) return answer.data as T;
  const id = answer.response.headers.get('x-request-id') ?? undefined;
  throw new ApiError(isProblem(answer.error) ? answer.error : AWAY, id);
}

function isProblem(value: unknown): value is Problem {
  return typeof value === 'object' && value !== null && 'detail' in value && 'status' in value;
}
