import Button from '@mui/material/Button';
import TextField from '@mui/material/TextField';
import { useState, type ReactNode } from 'react';
import type { Schemas } from '../api/client';
import { fromField, toField } from '../format/time';
import { plain, start } from '../format/words';
import { typed } from '../format/number';
import { fieldError, otherError } from './fieldError';
import { FormDialog } from './FormDialog';
import { MixEditor, type PartDraft } from './MixEditor';
import { RadioLine } from './RadioLine';

export interface LogEntry {
  /** When it was; this moment when not said. */
  at?: string;
  wet_film_um?: number;
  amount_ml?: number;
  cup_after_g?: number;
  /** What was in the cup, when it was something else. */
  mix?: Schemas['PartDoc'][];
  /** Why a sealing coat was laid through a closed gate. */
  anyway?: string;
}

interface Props {
  title: string;
  /** The planned wet film [um]; undefined for a step that leaves none. */
  planned?: number;
  /** What the full cup weighed before the coat [g], and what the scale shows now [g]. */
  cupG?: number;
  scaleG?: number;
  /** When it was laid as it is kept, to put that right. */
  laidAt?: string;
  /** What was in the cup, when that can be put right. */
  mix?: Schemas['PartDoc'][];
  materials?: Schemas['MaterialDoc'][];
  /** What stands against the entry, before it is kept. */
  against?: (entry: LogEntry) => ReactNode;
  zone: string;
  now: number;
  pending: boolean;
  error: unknown;
  onLog: (entry: LogEntry) => void;
  onClose: () => void;
}

/** How long an untouched dialog still means this moment [ms]. */
const MINUTE = 60_000;

const sameMix = (a: Schemas['PartDoc'][], b: Schemas['PartDoc'][]) =>
  a.length === b.length &&
  a.every((p, n) => p.material === b[n]?.material && p.parts === b[n].parts);

type How = 'planned' | 'um' | 'ml' | 'g';

const ASKED = {
  um: { label: 'Wet film, µm', field: 'wet_film_um' },
  ml: { label: 'Mix on the picture, ml', field: 'amount_ml' },
  g: { label: 'The cup now, brush and all, g', field: 'cup_after_g' },
} as const;

/** What really happened: when, and how much. */
export function LogDialog(props: Props) {
  const { title, planned, cupG, scaleG, zone, now, pending, error, onLog, onClose } = props;
  const { laidAt, materials = [] } = props;
  const [opened] = useState(laidAt ? Date.parse(laidAt) : now);
  const [when, setWhen] = useState(() => toField(opened, zone));
  const [how, setHow] = useState<How>('planned');
  const [amount, setAmount] = useState('');
  const [why, setWhy] = useState('');
  const [mix, setMix] = useState<PartDraft[] | undefined>(() =>
    props.mix?.map((p) => ({ material: p.material, parts: plain(p.parts, 4) })),
  );
  const closed = fieldError(error, 'anyway');
  // Left as it was it means this moment, which the server's clock says: what was counted or logged
  // a moment ago comes before it.
  const same = when === toField(opened, zone);
  const untouched = !laidAt && same && now - opened < MINUTE;
  // What is put right keeps its seconds where the minute stays.
  const at = laidAt && same ? laidAt : fromField(when, zone);
  const parts = mix?.map((p) => ({ material: p.material, parts: typed(p.parts) }));
  const badMix = parts?.some((p) => !Number.isFinite(p.parts));
  const number = typed(amount);
  const needs = planned !== undefined && how !== 'planned';
  const bad = needs && !Number.isFinite(number);
  const fields = ['anyway', 'mix', 'at', 'wet_film_um', 'amount_ml', 'cup_after_g'];
  const asked = how === 'planned' ? undefined : ASKED[how];
  const refused = asked && fieldError(error, asked.field);
  const other = otherError(error, (path) => fields.includes(path));
  const entry: LogEntry = {
    ...(untouched ? {} : { at }),
    ...(needs && asked && !bad ? { [asked.field]: number } : {}),
    ...(parts && !badMix && !sameMix(parts, props.mix ?? []) ? { mix: parts } : {}),
    ...(why.trim() ? { anyway: why.trim() } : {}),
  };
  const submit = () => {
    if (!at || bad || badMix) return;
    onLog(entry);
  };
  return (
    <FormDialog
      title={`${laidAt ? 'Put right' : planned === undefined ? 'Done' : 'Coat laid'}: ${title}`}
      send={laidAt ? 'Keep' : 'Log it'}
      sending={laidAt ? 'Keeping…' : 'Logging…'}
      width={mix ? 'sm' : 'xs'}
      pending={pending}
      disabled={!at || bad || badMix}
      trouble={other}
      onSend={submit}
      onClose={onClose}
    >
      <TextField
        label={planned === undefined ? 'When it was done' : 'When the coat was there'}
        type="datetime-local"
        value={when}
        onChange={(e) => setWhen(e.target.value)}
        error={!at || !!fieldError(error, 'at')}
        helperText={at ? fieldError(error, 'at') : 'Give a day and a time.'}
        slotProps={{ inputLabel: { shrink: true } }}
      />
      {planned !== undefined && (
        <>
          <RadioLine
            label="How thick it really was"
            value={how}
            onChange={setHow}
            options={[
              {
                value: 'planned',
                word: `As ${laidAt ? 'it is' : 'planned'}, ${plain(planned)} µm`,
              },
              { value: 'um', word: 'Measured, µm' },
              { value: 'ml', word: 'Amount used, ml' },
              ...(cupG === undefined ? [] : [{ value: 'g' as const, word: 'By weight, g' }]),
            ]}
          />
          {asked && (
            <TextField
              label={asked.label}
              value={amount}
              inputMode="decimal"
              onChange={(e) => setAmount(e.target.value)}
              error={(bad && amount !== '') || !!refused}
              helperText={
                refused ??
                (bad && amount !== ''
                  ? 'Give a number.'
                  : how === 'g'
                    ? `The full cup weighed ${plain(cupG ?? 0, 2)} g.`
                    : undefined)
              }
            />
          )}
          {how === 'g' && scaleG !== undefined && (
            <Button onClick={() => setAmount(plain(scaleG, 2))}>
              Take what the scale shows: {scaleG.toFixed(2)} g
            </Button>
          )}
        </>
      )}
      {mix && (
        <MixEditor
          mix={mix}
          materials={materials}
          wrong={badMix ? 'Give every part a number.' : fieldError(error, 'mix')}
          onChange={setMix}
        />
      )}
      {at && props.against?.(entry)}
      {(closed || why !== '') && (
        <TextField
          label="Why you seal it anyway"
          value={why}
          onChange={(e) => setWhy(e.target.value)}
          error
          helperText={`${closed ? start(closed) : 'The gate is closed'}. The reason stays in the record.`}
        />
      )}
    </FormDialog>
  );
}
