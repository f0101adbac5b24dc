export type ThemeChoice = 'system' | 'light' | 'dark';
const KEY = 'zb-theme';

export function themeChoice(): ThemeChoice {
  try {
    const kept = localStorage.getItem(KEY);
    return kept === 'light' || kept === 'dark' ? kept : 'system';
  } catch {
    return 'system';
  }
}

/** Applies a theme and remembers it where the browser allows. */
export function setTheme(choice: ThemeChoice): void {
  const dark =
    choice === 'dark' || (choice === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.classList.toggle('dark', dark);
  document.documentElement.classList.toggle('light', !dark);
  try {
    if (choice === 'system') localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, choice);
  } catch {
    // A browser that keeps nothing still shows the theme until the page is closed.
  }
}
