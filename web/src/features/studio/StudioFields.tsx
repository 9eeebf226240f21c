import type { Schemas } from '../../api/client';
import Box from '@mui/material/Box';
import FormControlLabel from '@mui/material/FormControlLabel';
import MenuItem from '@mui/material/MenuItem';
import Stack from '@mui/material/Stack';
import Switch from '@mui/material/Switch';
import TextField from '@mui/material/TextField';
import Typography from '@mui/material/Typography';
import { RadioLine } from '../../components/RadioLine';
import { NumberField } from '../../components/NumberField';
import { optionsOf, useCatalogue, usualWord } from '../../components/catalogue';
import { ClosedEditor, HoursEditor } from './HoursEditor';
import type { useStudioForm } from './useStudioForm';

interface Props {
  edit: ReturnType<typeof useStudioForm>;
  /** Why the server refused a field. */
  refused: (path: string) => string | undefined;
  today: string;
}

const ZONES = Intl.supportedValuesOf('timeZone');

/** The usual choices, and the studio's own where a document brought another. */
function sureOptions(usual: Schemas['UsualOut'][], own: number) {
  const options = usual.map(({ value, said }) => ({ value: String(value), word: said }));
  if (Number.isNaN(own) || usual.some(({ value }) => value === own)) return options;
  const word = `By then in ${Math.round(own * 100)} of 100 cases`;
  return [...options, { value: String(own), word }];
}

/** Hours, room and schools of a studio as fields. */
export function StudioFields({ edit, refused, today }: Props) {
  const { form, change, wrong, numbers } = edit;
  const catalogue = useCatalogue();
  const error = (path: string) => wrong[path] ?? refused(path);
  const text = (
    label: string,
    path: string,
    value: string,
    set: (v: string) => void,
    width?: number,
  ) => (
    <TextField
      label={label}
      value={value}
      onChange={(e) => set(e.target.value)}
      error={!!error(path)}
      helperText={error(path)}
      sx={width ? { width: { xs: '100%', sm: width } } : undefined}
    />
  );
  const said = usualWord(catalogue.speeds, form.speed, (m_s) => `${m_s} m/s`);
  const speeds = catalogue.speeds.some((s) => s.value === form.speed)
    ? catalogue.speeds
    : [...catalogue.speeds, { value: form.speed, said }];
  return (
    <Stack spacing={4}>
      <Box component="section" aria-label="Room">
        <Typography variant="h3" sx={{ mb: 1.5 }}>
          Where and how you keep the room
        </Typography>
        <Stack spacing={2}>
          <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
            {text('Name of the studio', 'studio.name', form.name, (name) => change({ name }), 340)}
            <TextField
              select
              label="Time zone"
              value={form.time_zone}
              onChange={(e) => change({ time_zone: e.target.value })}
              sx={{ minWidth: 240 }}
              error={!!error('studio.time_zone')}
              helperText={error('studio.time_zone')}
            >
              {(ZONES.includes(form.time_zone) ? ZONES : [form.time_zone, ...ZONES]).map((z) => (
                <MenuItem key={z} value={z}>
                  {z}
                </MenuItem>
              ))}
            </TextField>
          </Stack>
          <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
            <NumberField
              numbers={numbers}
              name="temperature"
              refused={refused('air.temperature_c')}
              width={200}
            />
            <NumberField
              numbers={numbers}
              name="humidity"
              refused={refused('air.relative_humidity')}
              width={200}
            />
            <TextField
              select
              label="Moving air"
              value={form.speed}
              onChange={(e) => change({ speed: Number(e.target.value) })}
              sx={{ minWidth: 200 }}
            >
              {speeds.map((s) => (
                <MenuItem key={s.value} value={s.value}>
                  {s.said}
                </MenuItem>
              ))}
            </TextField>
          </Stack>
          <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2}>
            {text(
              'Flat places for wet work',
              'studio.flat_places',
              form.flat_places,
              (flat_places) => change({ flat_places }),
              230,
            )}
            <NumberField
              numbers={numbers}
              name="setup"
              refused={refused('studio.setup_min')}
              width={230}
            />
          </Stack>
        </Stack>
      </Box>
      <Box component="section" aria-label="When you work">
        <Typography variant="h3" sx={{ mb: 1.5 }}>
          When you work
        </Typography>
        <HoursEditor hours={form.hours} error={error} onChange={(hours) => change({ hours })} />
        <Box sx={{ my: 2 }}>
          <NumberField
            numbers={numbers}
            name="missed"
            refused={refused('studio.missed_sessions')}
            width={300}
          />
        </Box>
        <FormControlLabel
          control={
            <Switch
              checked={form.by_daylight}
              onChange={(e) => change({ by_daylight: e.target.checked })}
            />
          }
          label="Judge colour by daylight only: such steps are planned between sunrise and sunset"
        />
        {form.by_daylight && (
          <Stack direction={{ xs: 'column', sm: 'row' }} spacing={2} sx={{ mt: 1 }}>
            {(['latitude', 'longitude'] as const).map((name) => (
              <NumberField
                key={name}
                numbers={numbers}
                name={name}
                refused={refused(`studio.daylight.${name}_deg`)}
                width={200}
              />
            ))}
          </Stack>
        )}
        <Typography sx={{ mt: 2, mb: 1, fontWeight: 600 }}>Days off</Typography>
        <ClosedEditor
          closed={form.closed}
          today={today}
          error={error}
          onChange={(closed) => change({ closed })}
        />
      </Box>
      <Box component="section" aria-label="Schools">
        <Typography variant="h3" sx={{ mb: 1.5 }}>
          Your schools
        </Typography>
        <Stack spacing={2}>
          <RadioLine
            label="Waiting before varnish, the later of this and the computed cure"
            value={form.waiting}
            onChange={(waiting) => change({ waiting })}
            options={optionsOf<typeof form.waiting>(catalogue.waitings)}
          />
          <RadioLine
            label="How sure is a time that is said? Plan, gate and every screen go by it"
            value={String(form.sure)}
            onChange={(sure) => change({ sure: Number(sure) })}
            options={sureOptions(catalogue.sures, form.sure)}
          />
          <RadioLine
            label="Thinning"
            value={form.thinning}
            onChange={(thinning) => change({ thinning })}
            options={optionsOf<typeof form.thinning>(catalogue.thinnings)}
          />
          <FormControlLabel
            label="Fresh eyes: a night between blocking in and glazing"
            control={
              <Switch
                checked={form.fresh_eyes}
                onChange={(e) => change({ fresh_eyes: e.target.checked })}
              />
            }
          />
          <FormControlLabel
            label="Isolation coat between paint and removable varnish"
            control={
              <Switch
                checked={form.isolation_coat}
                onChange={(e) => change({ isolation_coat: e.target.checked })}
              />
            }
          />
        </Stack>
      </Box>
    </Stack>
  );
}
