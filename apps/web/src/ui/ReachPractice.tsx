import { Box } from '@mui/material';
import { PhoneLink } from './PhoneLink.tsx';

interface ReachProps {
  readonly name: string;
  readonly phone: string | null;
  readonly email: string | null;
}

/** A practice with its phone and mail, as a client may need them at any moment. */
export function ReachPractice({ name, phone, email }: ReachProps) {
  return (
    <Box component="span">
      {name}
      {phone && (
        <>
          {', '}
          <PhoneLink phone={phone} />
        </>
      )}
      {email && (
        <>
          {', '}
          <a href={`mailto:${email}`}>{email}</a>
        </>
      )}
    </Box>
  );
}
