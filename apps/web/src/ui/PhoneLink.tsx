import { Link as MuiLink, type LinkProps } from '@mui/material';

/** A phone number that is called by a touch. */
export function PhoneLink({ phone, ...props }: { readonly phone: string } & Omit<LinkProps, 'href'>) {
  return (
    <MuiLink {...props} href={`tel:${phone.replace(/[^+\d]/g, '')}`}>
      {phone}
    </MuiLink>
  );
}
