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

  it('names a step of a picture in words', async () => {
    const said = async (path: string, why: string) => {
      const problem = { type: 't', title: 'Input refused', status: 422, path };
      const made = answer(422, { ...problem, detail: `${path}: ${why}` });
      return (await refusal(unwrap(made))).message;
    };
    const chain = 'Seal drawing is laid, but Drawing below it is not';
    expect(await said('steps[5]', chain)).toBe(chain);
    expect(await said('steps[5].mix', 'a glaze needs a mix')).toBe('Step 6: a glaze needs a mix');
    const file = 'pictures[0].steps[2].mix';
    expect(await said(file, 'no such material')).toBe(`${file}: no such material`);
  });

  it('that never came, or is no problem document, is said as such', async () => {
    const gone = await refusal(unwrap(Promise.reject(new TypeError('fetch failed'))));
    expect(gone.problem.status).toBe(0);
    expect(gone.message).toContain('nothing you typed is lost');
    expect((await refusal(unwrap(answer(502, '<html>')))).problem.status).toBe(0);
  });
});
