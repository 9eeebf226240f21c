import { describe, expect, it } from 'vitest';
import { ApiError, unwrap } from './client';

const answer = (status: number, error?: unknown, data?: unknown) =>
  Promise.resolve({
    data,
    error,
    response: new Response(null, { status, headers: { 'x-request-id': 'r1' } }),
  });

const refusal = async (asked: Promise<unknown>): Promise<ApiError> => {
  try {
    await asked;
  } catch (error) {
    if (error instanceof ApiError) return error;
  }
  throw new Error('it was not refused');
};

describe('an answer', () => {
  it('is its data when all is well', async () => {
    expect(await unwrap(answer(200, undefined, { id: 1 }))).toEqual({ id: 1 });
  });

  it('is its problem document when it was refused', async () => {
    const problem = {
      type: 't',
      title: 'Edited elsewhere',
      status: 409,
      detail: 'Version 2 is stored.',
    };
    const error = await refusal(unwrap(answer(409, problem)));
    expect(error.message).toBe('Version 2 is stored.');
    expect(error.problem.status).toBe(409);
    expect(error.requestId).toBe('r1');
  });

  it('that never came, or is no problem document, is said as such', async () => {
    const gone = await refusal(unwrap(Promise.reject(new TypeError('fetch failed'))));
    expect(gone.problem.status).toBe(0);
    expect(gone.message).toContain('nothing you typed is lost');
    expect((await refusal(unwrap(answer(502, '<html>')))).problem.status).toBe(0);
  });
});
