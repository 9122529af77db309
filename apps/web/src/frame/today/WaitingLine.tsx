import { Box } from '@mui/material';
import { Link } from 'react-router';
import { isOf } from '../../offline/holder.ts';
import { useCarried, useHolder } from '../../offline/useOutbox.ts';
import { colours } from '../../ui/theme.ts';
import { ofOthers, things } from './carriedWords.ts';

/** What waits on this device, in a line that leads to the rest: nothing of what it is where it is somebody else's. */
export function WaitingLine() {
  const holder = useHolder();
  const { entries } = useCarried();
  const own = entries.filter((one) => isOf(holder, one));
  const refused = own.filter((one) => one.refused !== undefined).length;
  const others = ofOthers(holder, entries);
  if (own.length === 0 && others.length === 0) return null;
  return (
    <Box role="status" aria-label="On this device" sx={{ borderLeft: `4px solid ${colours.ochre}`, pl: 1.5 }}>
      {own.length > 0 && (
        <Box>
          {[
            own.length > refused ? `${things(own.length - refused)} wait to be sent` : '',
            refused > 0 ? `${things(refused)} not taken` : '',
          ]
            .filter(Boolean)
            .join(', ')}
          : <Link to="/sent">look</Link>
        </Box>
      )}
      {others.map(([name, ids]) => (
        <Box key={name}>
          {things(ids.length)} of {name} wait to be sent: {name} signs in here.{' '}
          {holder && <Link to="/sent">Or hand it to the practice</Link>}
        </Box>
      ))}
    </Box>
  );
}
