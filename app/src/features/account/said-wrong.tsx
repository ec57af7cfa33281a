import { Text } from 'react-native';

/** What went wrong, and what to do; nothing when nothing did. */
export function SaidWrong({ problem }: { problem: string | null }) {
  return problem === null ? null : (
    <Text role="alert" className="font-ui text-base text-brick">
      {problem}
    </Text>
  );
}
