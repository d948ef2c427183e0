'use client';

import { useEffect, useState } from 'react';
import { THEME_COOKIE, THEMES, type Theme } from './theme';

const THEME_WORDS: Record<Theme, string> = { auto: 'system', light: 'light', dark: 'dark' };
const YEAR_S = 365 * 24 * 3600;

/** Light, dark, or as the system prefers; kept in a cookie so that the server draws it right from the first byte. */
export function ThemeSwitch({ initial }: { readonly initial: Theme }) {
  const [theme, setTheme] = useState(initial);
  useEffect(() => {
    if (theme === 'auto') delete document.documentElement.dataset.theme;
    else document.documentElement.dataset.theme = theme;
  }, [theme]);
  const choose = (next: Theme) => {
    setTheme(next);
    keepTheme(next);
  };
  return (
    <select
      aria-label="Paper colour"
      value={theme}
      onChange={(event) => choose(event.target.value as Theme)}
      title="Paper colour: as the system has it, light or dark"
      className="h-8 rounded-[3px] border border-transparent bg-transparent px-1 text-sm text-quiet hover:border-quiet"
    >
      {THEMES.map((name) => (
        <option key={name} value={name} className="bg-sheet text-ink">
          {THEME_WORDS[name]}
        </option>
      ))}
    </select>
  );
}

function keepTheme(theme: Theme): void {
  document.cookie = `${THEME_COOKIE}=${theme}; path=/; max-age=${YEAR_S}; samesite=lax`;
}
