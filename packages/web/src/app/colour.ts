import { recall, remember } from '../storage/remembered';

export type ThemeChoice = 'system' | 'light' | 'dark';
const KEY = 'zb-theme';

export function themeChoice(): ThemeChoice {
  const kept = recall(KEY);
  return kept === 'light' || kept === 'dark' ? kept : 'system';
}

/** Applies a theme and remembers it where the browser allows. */
export function setTheme(choice: ThemeChoice): void {
  const dark =
    choice === 'dark' || (choice === 'system' && matchMedia('(prefers-color-scheme: dark)').matches);
  document.documentElement.classList.toggle('dark', dark);
  document.documentElement.classList.toggle('light', !dark);
  remember(KEY, choice === 'system' ? null : choice);
}
