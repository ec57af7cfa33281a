import { useState } from 'react';
import { Button } from './button';

/** A button for what cannot be undone: the first press asks, the second does it. */
export function SureButton({ label, sure, onPress }: { label: string; sure: string; onPress(): void }) {
  const [asked, setAsked] = useState(false);
  return (
    <Button
      label={asked ? sure : label}
      kind="loss"
      onPress={() => {
        if (asked) onPress();
        setAsked(!asked);
      }}
    />
  );
}
