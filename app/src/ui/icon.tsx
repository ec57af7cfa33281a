import type { ComponentType } from 'react';
import type tokens from './tokens';

interface IconProps {
  /** One of lucide-react-native/icons; its own types do not know the colour that SVG components take. */
  of: unknown;
  tone: keyof typeof tokens.day;
  size?: number;
}

/** An icon in one of the theme's colours. It says nothing to a screen reader: what it stands in has the name. */
export function Icon({ of, tone, size = 21 }: IconProps) {
  const Drawing = of as ComponentType<{ color: string; size: number; 'aria-hidden': boolean }>;
  return <Drawing color={`var(--${tone})`} size={size} aria-hidden />;
}
