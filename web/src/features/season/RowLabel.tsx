import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { Schemas } from '../../api/client';
import { dueDay, exact } from '../../format/time';
import { filmWords } from '../../figures/Ribbon';
import { days, oddsWords } from './words';

interface Props {
  picture: Schemas['SeasonPicture'];
  odds?: Schemas['PictureOddsOut'];
  open: boolean;
  now: number;
  zone: string;
  onOpen: () => void;
}

/** A picture's name with its date, its odds and its film, beside its ribbon. */
export function RowLabel({ picture, odds, open, now, zone, onOpen }: Props) {
  const late = picture.done ? 0 : (picture.days_late ?? 0);
  const finish = picture.finish ? exact(Date.parse(picture.finish), zone) : undefined;
  const state = () => {
    if (picture.blocked.length > 0) return 'A step cannot be placed';
    if (picture.done) return 'Done';
    if (!finish) return 'Nothing to do yet';
    return `${late > 0 ? `${days(late)} late` : 'Ready'}, ${finish}`;
  };
  return (
    <ButtonBase
      onClick={onOpen}
      aria-expanded={open}
      sx={{
        display: 'block',
        textAlign: 'left',
        py: 0.75,
        pr: 1.5,
        font: 'inherit',
        bgcolor: open ? 'background.paper' : undefined,
        pl: open ? 1 : 0,
        minHeight: 56,
      }}
    >
      <Box
        component="span"
        sx={{ display: 'block', fontWeight: 700, fontSize: 17, lineHeight: 1.2 }}
      >
        {picture.title}
      </Box>
      <Box
        component="span"
        sx={{
          display: 'block',
          fontSize: 16,
          fontWeight: late > 0 ? 700 : 400,
          color: late > 0 || picture.blocked.length > 0 ? 'error.main' : 'text.primary',
        }}
      >
        {state()}
      </Box>
      <Box component="span" sx={{ display: 'block', fontSize: 15, color: 'text.secondary' }}>
        {picture.due ? `due ${dueDay(picture.due, now)}` : 'no date'}
        {!picture.done && odds?.on_day != null && ` · odds ${oddsWords(odds.on_day)}`}
        <Box component="span" sx={{ position: 'absolute', left: -9999 }}>
          . Film now: {filmWords(picture, now)}.
        </Box>
      </Box>
    </ButtonBase>
  );
}
