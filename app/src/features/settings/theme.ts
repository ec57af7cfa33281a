import { useEffect } from 'react';
import tokens from '@/ui/tokens';
import { useReadingSettings } from './reading-settings-store';

/** Puts the chosen theme on the document, and follows the system's where that was chosen. */
export function useTheme(): void {
  const theme = useReadingSettings((state) => state.theme);
  useEffect(() => {
    const system = matchMedia('(prefers-color-scheme: dark)');
    const apply = () => {
      const night = theme === 'night' || (theme === 'system' && system.matches);
      document.documentElement.classList.toggle('dark', night);
      document
        .querySelector('meta[name="theme-color"]')
        ?.setAttribute('content', (night ? tokens.night : tokens.day).ground);
    };
    apply();
    system.addEventListener('change', apply);
    return () => system.removeEventListener('change', apply);
  }, [theme]);
}
