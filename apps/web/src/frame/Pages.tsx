import { Box } from '@mui/material';
import { Suspense, useEffect, useRef } from 'react';
import { Outlet, useLocation } from 'react-router';
import { Opening } from '../ui/bits.tsx';
import { colours } from '../ui/theme.ts';

/** Pages are told apart by what comes before a zone: going from zone to zone is no change of page. */
const pageOf = (path: string): string => (path.startsWith('/sites/') ? path.split('/').slice(0, 4).join('/') : path);

/** "Reading, Gannet Row Almshouses, Glenfold": what stands in the window's title, from what stands on the page. */
function titleOf(): string {
  const words = (found: Element | null): string => found?.textContent.trim() ?? '';
  const step = document.querySelector('nav [aria-current="step"] .name');
  const parts = [words(step), words(document.querySelector('h1')), 'Glenfold'].filter((part) => part !== '');
  return [...new Set(parts)].join(', ');
}

/**
 * What every page has beside its own: a title that says where one is, a way past the head for those who do not see it at a
 * glance, and the focus on the heading where another page has come.
 */
export function Pages() {
  const { pathname } = useLocation();
  const page = pageOf(pathname);
  const last = useRef(page);
  useEffect(() => {
    const changed = last.current !== page;
    last.current = page;
    let wanted = changed;
    const look = (): void => {
      const title = titleOf();
      if (document.title !== title) document.title = title;
      const main = document.querySelector('main');
      if (main?.id === '') main.id = 'content';
      const heading = document.querySelector<HTMLElement>('main h1, h1');
      // A dialog, or a field that asks for it, has the focus already.
      const free =
        document.activeElement === document.body || !document.activeElement?.closest('main, [role="dialog"]');
      if (!wanted || !heading) return;
      wanted = false;
      if (!free) return;
      heading.tabIndex = -1;
      heading.focus({ preventScroll: true });
    };
    look();
    const watch = new MutationObserver(look);
    watch.observe(document.body, { childList: true, subtree: true, characterData: true });
    return () => watch.disconnect();
  }, [page]);
  return (
    <>
      <Box
        component="a"
        href="#content"
        onClick={(event: React.MouseEvent) => {
          event.preventDefault();
          const main = document.querySelector('main');
          if (!main) return;
          main.tabIndex = -1;
          main.focus();
        }}
        sx={{
          ...{ position: 'absolute', left: 8, top: -60, zIndex: 2000, px: 2, py: 1.25 },
          ...{ background: colours.paper, color: colours.ink, border: `2px solid ${colours.ink}`, fontWeight: 700 },
          '&:focus': { top: 8 },
        }}
      >
        Skip to the content
      </Box>
      <Suspense fallback={<Opening />}>
        <Outlet />
      </Suspense>
    </>
  );
}
