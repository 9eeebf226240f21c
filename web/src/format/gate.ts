/** The gate in a sentence: looks up what the server computed, computes nothing. */
import type { Schemas } from '../api/client';
import { moment } from './time';
import { start } from './words';

type Brief = Schemas['GateBrief'];
type Condition = Schemas['ConditionOut'];

/** What is asked of the painter. */
const DO: Partial<Record<Condition['id'], string>> = {
  last_coat: 'finish the painting',
  signature: 'sign it',
  photograph: 'photograph it',
  surface: 'look it over',
};

const list = (words: string[]) =>
  words.length < 2 ? words.join('') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`;

/** What to do with a picture at the gate, the head in bold. */
export function gateVerdict(brief: Brief, now: number, zone: string, horizonDays: number) {
  const at = (text: string) => moment(Date.parse(text), now, zone);
  const coat = brief.coat ?? 'varnish';
  if (brief.stage === 'unplanned') {
    return { head: 'No varnish is planned.', rest: 'Choose one under “Varnish plan”.' };
  }
  if (brief.stage === 'wrapped') return { head: 'Wrapped.', rest: 'It is done here.' };
  if (brief.stage === 'ready_to_wrap') {
    return { head: 'Ready to wrap.', rest: 'The face may be touched by smooth paper.' };
  }
  if (brief.stage === 'curing') {
    const rest = brief.wrap_from
      ? `Nothing touches the face before ${at(brief.wrap_from)}.`
      : `In this room it does not get ready to wrap within ${horizonDays} days.`;
    return { head: 'Sealed: leave it.', rest };
  }
  if (brief.stage === 'open') {
    return {
      head: brief.between ? 'You may coat it again now.' : 'You may seal it now.',
      rest: `Every condition holds for ${coat}.`,
    };
  }
  const yours = brief.against.filter((c) => c.standing === 'yours');
  const others = brief.against.filter((c) => c.standing !== 'yours');
  const wall = others.filter((c) => c.from == null);
  const slowest = others
    .filter((c) => c.from != null)
    .sort((a, b) => Date.parse(b.from ?? '') - Date.parse(a.from ?? ''))[0];
  const why = wall[0] ?? slowest ?? yours[0];
  const said = why && others.length > 0 ? `${start(why.lacks)}.` : '';
  const todo = yours.map((c) => DO[c.id] ?? c.lacks);
  const first = brief.earliest ? `Earliest ${at(brief.earliest.from)}` : '';
  const ready = others.length === 0 && !yours.some((c) => c.id === 'last_coat');
  if (ready) return { head: `Almost: ${list(todo)}, then seal.`, rest: first && `${first}.` };
  const rest = [
    wall.length === 0 || first ? said : `${said} Waiting does not help.`,
    todo.length > 0 && first ? `${first}, if you ${list(todo)} first.` : first && `${first}.`,
    todo.length > 0 && !first ? `Yours to do: ${list(todo)}.` : '',
  ];
  return { head: 'Not yet: leave it unsealed.', rest: rest.filter(Boolean).join(' ') };
}

/** How a condition stands, in a word; it is never said by colour alone. */
export const STANDING: Record<Condition['standing'], string> = {
  holds: 'holds',
  waits: 'waits',
  yours: 'yours to do',
  against: 'against it',
  missed: 'missed',
};
