import { Box, TextField, Typography } from '@mui/material';
import { useEffect, useState } from 'react';
import { Link } from 'react-router';
import { colours } from '../../ui/theme.ts';
import { keepPages } from '../../ui/keepPages.ts';
import { PocketFrame } from './PocketFrame.tsx';
import { found, pathOf, subjects } from './subjects.ts';

/** Every public calculation, under the heading that it is looked for by. */
export function Pocket() {
  const [text, setText] = useState('');
  useEffect(() => void keepPages(['/pocket']), []);
  const shown = subjects
    .map((subject) => ({
      ...subject,
      calculators: subject.calculators.filter((one) => found(text, one, subject.title)),
    }))
    .filter(({ calculators }) => calculators.length > 0);
  return (
    <PocketFrame>
      <Box sx={{ display: 'flex', gap: 3, flexWrap: 'wrap', alignItems: 'center', mb: 2.5 }}>
        <Typography variant="h1">Pocket</Typography>
        <TextField
          label="Find a calculation"
          placeholder="lime, core, bags …"
          value={text}
          onChange={(event) => setText(event.target.value)}
          sx={{ flex: '1 1 220px', maxWidth: 360 }}
        />
      </Box>
      {shown.length === 0 && <Typography>No calculation has “{text.trim()}” in its name.</Typography>}
      <Box sx={{ columns: { xs: 1, sm: 2, md: 3 }, columnGap: 5 }}>
        {shown.map(({ title, calculators }) => (
          <Box component="section" key={title} aria-label={title} sx={{ breakInside: 'avoid', mb: 3 }}>
            <Typography
              variant="h2"
              sx={{ borderTop: `2px solid ${colours.ink}`, pt: 0.75, mb: 0.5, fontSize: '1.1rem' }}
            >
              {title}
            </Typography>
            <Box component="ul" sx={{ listStyle: 'none', m: 0, p: 0 }}>
              {calculators.map((one) => (
                <Box component="li" key={one.calculator} sx={{ borderBottom: `1px solid ${colours.line}` }}>
                  <Box
                    component={Link}
                    to={pathOf(one)}
                    sx={{
                      display: 'block',
                      py: 0.9,
                      minHeight: 40,
                      color: colours.ink,
                      textDecoration: 'none',
                      '&:hover': { textDecoration: 'underline' },
                    }}
                  >
                    {one.title}
                  </Box>
                </Box>
              ))}
            </Box>
          </Box>
        ))}
      </Box>
    </PocketFrame>
  );
}
