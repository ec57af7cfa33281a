import type { LucideIcon } from 'lucide-react';
import type tokens from './tokens';

interface IconProps {
  of: LucideIcon;
  tone: keyof typeof tokens.day;
  size?: number;
}

/** An icon in one of the theme's colours. It says nothing to a screen reader: what it stands in has the name. */
export function Icon({ of: Drawing, tone, size = 21 }: IconProps) {
  return <Drawing color={`var(--${tone})`} size={size} aria-hidden />;
}
