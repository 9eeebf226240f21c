import Box from '@mui/material/Box';
import ButtonBase from '@mui/material/ButtonBase';
import type { Schemas } from '../../api/client';
import { dateStyle } from '../../components/useDates';
import { dueDay } from '../../format/time';
import { filmWords } from '../../figures/Ribbon';

interface Props {
  picture: Schemas['SeasonPicture'];
  date: Schemas['DateOut'];
  open: boolean;
  now: number;
  onOpen: () => void;
}

/** A picture's name with how its date stands and its film, beside its ribbon. */
export function RowLabel({ picture, date, open, now, onOpen }: Props) {
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
          ...dateStyle(date.standing),
        }}
      >
        {date.short}
      </Box>
      <Box component="span" sx={{ display: 'block', fontSize: 15, color: 'text.secondary' }}>
        {picture.due ? `due ${dueDay(picture.due, now)}` : 'no date'}
        <Box component="span" sx={{ position: 'absolute', left: -9999 }}>
          . Film now: {filmWords(picture, now)}.
        </Box>
      </Box>
    </ButtonBase>
  );
}
