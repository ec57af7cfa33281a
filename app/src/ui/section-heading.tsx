import { Text } from 'react-native';

export function SectionHeading({ children }: { children: string }) {
  return (
    <Text role="heading" aria-level={2} className="font-read text-head font-semibold text-ink">
      {children}
    </Text>
  );
}
