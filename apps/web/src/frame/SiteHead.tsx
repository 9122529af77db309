import type { SiteAnswer } from '@glenfold/contract';
import MoreIcon from '@mui/icons-material/MoreVert';
import { Box, Button, IconButton, Menu, MenuItem, Typography } from '@mui/material';
import { useState } from 'react';
import { Link } from 'react-router';
import { colours } from '../ui/theme.ts';

interface SiteHeadProps {
  readonly site: SiteAnswer;
  /** Nothing for those who may not. */
  readonly onChange: (() => void) | undefined;
  readonly onShare: (() => void) | undefined;
}

/** The site's name and what can be done with it as a whole: one line, on a phone with a menu at its end. */
export function SiteHead({ site, onChange, onShare }: SiteHeadProps) {
  const [anchor, setAnchor] = useState<HTMLElement | null>(null);
  const report = `/reports/${site.id}`;
  const about = `/sites/${site.id}/about`;
  const small = { minHeight: 26, px: 1 } as const;
  const close = (): void => setAnchor(null);
  const then = (act: () => void) => () => {
    close();
    act();
  };
  return (
    <Box
      component="section"
      aria-label="Site"
      sx={{
        px: 2,
        pt: { xs: 0, md: 1 },
        pb: { xs: 0, md: 0.75 },
        display: 'flex',
        gap: 1.5,
        alignItems: { xs: 'center', md: 'baseline' },
      }}
    >
      <Typography variant="h1" noWrap sx={{ fontSize: { xs: '1.15rem', md: '1.35rem' }, minWidth: 0 }}>
        {site.name}
      </Typography>
      <Typography noWrap sx={{ color: colours.faded, display: { xs: 'none', md: 'block' }, minWidth: 0 }}>
        {site.place}
      </Typography>
      {onChange && (
        <Button
          size="small"
          sx={{ ...small, display: { xs: 'none', md: 'inline-flex' }, flex: 'none' }}
          onClick={onChange}
        >
          Change the site
        </Button>
      )}
      <Box sx={{ flex: 1 }} />
      <Box sx={{ display: { xs: 'none', md: 'flex' }, gap: 1.5, flex: 'none' }}>
        <Button size="small" sx={small} component={Link} to={about}>
          People, access, climate
        </Button>
        <Button size="small" sx={small} component={Link} to={`/sites/${site.id}/owner-report`}>
          For the owner
        </Button>
        <Button size="small" sx={small} component={Link} to={report}>
          Report
        </Button>
        {onShare && (
          <Button size="small" sx={small} onClick={onShare}>
            Share the report
          </Button>
        )}
      </Box>
      <IconButton
        aria-label={`More of ${site.name}`}
        aria-haspopup="menu"
        sx={{ display: { md: 'none' } }}
        onClick={(event) => setAnchor(event.currentTarget)}
      >
        <MoreIcon />
      </IconButton>
      <Menu anchorEl={anchor} open={anchor !== null} onClose={close}>
        <MenuItem component={Link} to={about} onClick={close}>
          People, access, climate
        </MenuItem>
        <MenuItem component={Link} to={`/sites/${site.id}/owner-report`} onClick={close}>
          For the owner
        </MenuItem>
        <MenuItem component={Link} to={report} onClick={close}>
          Report
        </MenuItem>
        {onShare && <MenuItem onClick={then(onShare)}>Share the report</MenuItem>}
        {onChange && <MenuItem onClick={then(onChange)}>Change the site</MenuItem>}
      </Menu>
    </Box>
  );
}
