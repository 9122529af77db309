import { Box } from '@mui/material';

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
          <a href={`tel:${phone.replace(/[^+\d]/g, '')}`}>{phone}</a>
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
