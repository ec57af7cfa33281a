import type { Spans } from '@dorvel/core/model';
import { useState } from 'react';
import { View } from 'react-native';
import { Strand } from '@/ui/strand';

interface RailProps {
  minutes: number;
  furthest: number;
  heard: Spans;
  fraction: number;
  /** Where highlights are, as fractions. */
  knots: readonly number[];
  label: string;
  onMove(fraction: number): void;
}

const STEP = 0.02;

/** The strand at the reader's edge. Touched, dragged or stepped by keys, it moves the place. */
export function Rail({ minutes, furthest, heard, fraction, knots, label, onMove }: RailProps) {
  const [height, setHeight] = useState(0);
  const moveTo = (event: React.PointerEvent<HTMLDivElement>) => {
    const box = event.currentTarget.getBoundingClientRect();
    onMove(Math.min(1, Math.max(0, (event.clientY - box.top) / box.height)));
  };
  const key = (event: React.KeyboardEvent) => {
    const to = {
      ArrowDown: fraction + STEP,
      ArrowRight: fraction + STEP,
      ArrowUp: fraction - STEP,
      ArrowLeft: fraction - STEP,
      PageDown: fraction + 0.1,
      PageUp: fraction - 0.1,
      Home: 0,
      End: 1,
    }[event.key];
    if (to === undefined) return;
    event.preventDefault();
    event.stopPropagation();
    onMove(Math.min(1, Math.max(0, to)));
  };
  return (
    <View
      className="absolute bottom-[14px] right-0 top-[10px] w-[44px] items-center"
      onLayout={(event) => setHeight(event.nativeEvent.layout.height)}
    >
      <div
        role="slider"
        tabIndex={0}
        aria-label="Place in the article"
        aria-orientation="vertical"
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(fraction * 100)}
        aria-valuetext={label}
        className="rail"
        onKeyDown={key}
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          moveTo(event);
        }}
        onPointerMove={(event) => {
          if (event.buttons > 0) moveTo(event);
        }}
      >
        {height > 0 && (
          <Strand
            minutes={minutes}
            passed={Math.max(furthest, fraction)}
            heard={heard}
            looseEnd={fraction}
            knots={knots}
            label={label}
            room={height}
            hanging
          />
        )}
      </div>
    </View>
  );
}
