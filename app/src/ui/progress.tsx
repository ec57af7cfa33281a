import { View } from 'react-native';

/** How far something is. @param of 0 to 1 */
export function Progress({ of, name = 'How far it is' }: { of: number; name?: string }) {
  return (
    <View
      role="progressbar"
      aria-label={name}
      aria-valuenow={Math.round(of * 100)}
      aria-valuemin={0}
      aria-valuemax={100}
      className="h-[6px] overflow-hidden rounded-[3px] bg-sunken"
    >
      <View className="h-full bg-accent" style={{ width: `${of * 100}%` }} />
    </View>
  );
}
