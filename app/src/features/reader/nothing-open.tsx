import { Text, View } from 'react-native';

/** The reader's side of a wide screen before anything is open. */
export function NothingOpen() {
  return (
    <View className="flex-1 items-center justify-center p-[40px]">
      <Text className="max-w-[340px] text-center font-ui text-base text-soft">
        Choose something from the list, or press n for the first. ? shows all keys.
      </Text>
    </View>
  );
}
