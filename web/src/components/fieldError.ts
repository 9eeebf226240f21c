import { ApiError } from '../api/client';

/** The sentence for the field at `path`, without the path: it stands next to the field. */
export function fieldError(error: unknown, path: string): string | undefined {
  if (!(error instanceof ApiError) || error.problem.path !== path) return undefined;
  return error.problem.detail.replace(`${path}: `, '');
}

/** The sentence of an error that belongs to none of the fields in `shown`. */
export function otherError(error: unknown, shown: (path: string) => boolean): string | undefined {
  if (!error) return undefined;
  if (error instanceof ApiError && error.problem.path && shown(error.problem.path))
    return undefined;
  return error instanceof Error ? error.message : String(error);
}
