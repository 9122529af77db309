import { PASSWORD_LEAST } from '@glenfold/contract';
import { Button, TextField, type TextFieldProps } from '@mui/material';
import { useState } from 'react';

type Given = TextFieldProps & { readonly problem?: string | undefined };

/** A text field that says what is wrong below it. */
export function Field({ problem, helperText, ...rest }: Given) {
  return <TextField {...rest} fullWidth error={!!problem} helperText={problem ?? helperText} />;
}

/** A password, shown on wish: long ones are typed wrong unseen. */
export function PasswordField({ fresh = false, ...rest }: Given & { readonly fresh?: boolean }) {
  const [shown, setShown] = useState(false);
  return (
    <Field
      {...rest}
      type={shown ? 'text' : 'password'}
      autoComplete={fresh ? 'new-password' : 'current-password'}
      helperText={
        rest.helperText ?? (fresh ? `${PASSWORD_LEAST} characters or more; a few words in a row will do` : undefined)
      }
      slotProps={{
        input: {
          endAdornment: (
            <Button size="small" sx={{ minWidth: 0, minHeight: 26 }} onClick={() => setShown(!shown)}>
              {shown ? 'Hide' : 'Show'}
            </Button>
          ),
        },
      }}
    />
  );
}
