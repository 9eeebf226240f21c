/** Odds and ways take a while: how far they are, and a way to stop them. */
import { type QueryKey, useQuery, type UseQueryOptions } from '@tanstack/react-query';
import { useState } from 'react';
import { isGoing, type Schemas } from '../api/client';

type Going = Schemas['Going'];

/** Asks for what takes a while. Nobody who asks any more is what stops it on the server. */
export function useLong<T extends object, K extends QueryKey>(
  options: UseQueryOptions<T | Going, Error, T | Going, K>,
  wanted: boolean,
) {
  const [stopped, setStopped] = useState(false);
  const asked = useQuery({ ...options, enabled: wanted && !stopped });
  const answer = asked.data;
  const going = isGoing(answer) ? answer : undefined;
  return {
    data: answer === undefined || isGoing(answer) ? undefined : answer,
    error: asked.error,
    /** What it says while it goes on: "Sampling the odds: 120 of 200". */
    progress: going && going.of > 0 ? `${going.done} of ${going.of}` : undefined,
    isGoing: wanted && !stopped && !asked.error && (asked.isLoading || going !== undefined),
    stopped: stopped && (answer === undefined || going !== undefined),
    stop: () => setStopped(true),
    goOn: () => setStopped(false),
  };
}
