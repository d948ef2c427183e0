/** Paper colours: as the system prefers, light, or dark. */
export const THEME_COOKIE = 'bent-straw-theme';
export const THEMES = ['auto', 'light', 'dark'] as const;
export type Theme = (typeof THEMES)[number];

export function readTheme(text: string | undefined): Theme {
  return THEMES.find((theme) => theme === text) ?? 'auto';
}
