import { HOW_MUCH_WORDS, HowMuch } from '@dorvel/core/model';
import { Choice } from '@/ui/choice';

interface HowMuchChoiceProps {
  value: HowMuch;
  onChange(value: HowMuch): void;
  /** Those offered; all of them unless said. */
  of?: readonly HowMuch[] | undefined;
}

/** What a save keeps. */
export function HowMuchChoice({ value, onChange, of = HowMuch.options }: HowMuchChoiceProps) {
  return (
    <Choice
      name="How much"
      value={value}
      onChange={onChange}
      options={of.map((each) => ({ value: each, label: HOW_MUCH_WORDS[each] }))}
    />
  );
}

/** What can be asked of a page again and again: a part is given by hand each time. */
export const OF_A_PAGE: readonly HowMuch[] = HowMuch.options.filter((each) => each !== 'selected-part');
