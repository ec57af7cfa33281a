import { render, screen } from '@testing-library/react-native';
import { Strand } from './strand';

const widthOfLine = (minutes: number) => {
  const { UNSAFE_root: root, unmount } = render(
    <Strand minutes={minutes} passed={0} looseEnd={null} label="x" room={300} />,
  );
  const line = root.findAll((node) => typeof node.props.x2 === 'number' && node.props.strokeWidth === 1.75)[0];
  const length = (line?.props.x2 as number) - (line?.props.x1 as number);
  unmount();
  return length;
};

describe('the strand', () => {
  it('carries its text equivalent', () => {
    render(<Strand minutes={12} passed={0.4} looseEnd={0.4} label="12 min, 7 left" room={300} />);
    expect(screen.getByLabelText('12 min, 7 left')).toBeTruthy();
  });

  it('is longer for what takes longer, on one scale, and never longer than there is room', () => {
    const lengths = [2, 5, 15, 60, 300].map(widthOfLine);
    expect([...lengths].sort((a, b) => a - b)).toEqual(lengths);
    expect(lengths[4]).toBe(lengths[3]);
    expect(lengths[4]).toBeLessThanOrEqual(300);
  });

  it('has a loose end where the reader stopped, and none where they have not begun or are done', () => {
    const looseEnds = (looseEnd: number | null) => {
      const { UNSAFE_root: root, unmount } = render(
        <Strand minutes={12} passed={0.4} looseEnd={looseEnd} label="x" room={300} />,
      );
      const count = new Set(
        root.findAll((node) => typeof node.props.d === 'string').map((node) => node.props.d as string),
      ).size;
      unmount();
      return count;
    };
    expect([looseEnds(null), looseEnds(0.4), looseEnds(1)]).toEqual([0, 1, 0]);
  });
});
