import { act, render, screen } from '@testing-library/react-native';
import { Text } from 'react-native';
import { Boundary, PartAway } from './boundary';
import { Button } from './button';

let broken = true;
function Part() {
  if (broken) throw new RangeError('Invalid time value');
  return <Text>The list</Text>;
}
/** All that is on screen. */
const shown = () => JSON.stringify(screen.toJSON());

beforeEach(() => {
  broken = true;
  // React writes down what a boundary caught.
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
});
afterEach(() => jest.restoreAllMocks());

it('says what cannot be shown and why, and shows it when it can be', () => {
  render(
    <Boundary what="This list">
      <Part />
    </Boundary>,
  );
  expect(shown()).toContain('This list cannot be shown');
  expect(shown()).toContain('Invalid time value');
  broken = false;
  const { onPress } = screen.UNSAFE_getByType(Button).props as { onPress: () => void };
  act(onPress);
  expect(shown()).toContain('The list');
});

it('is over where the reader goes elsewhere', () => {
  const at = (place: string) => (
    <Boundary what="This screen" at={place}>
      <Part />
    </Boundary>
  );
  render(at('marks'));
  broken = false;
  screen.rerender(at('marks'));
  expect(shown()).toContain('This screen cannot be shown');
  screen.rerender(at('library'));
  expect(shown()).toContain('The list');
});

it('does not call broken what only has not come yet', () => {
  const Away = () => {
    throw new PartAway('A part of the app could not be fetched.');
  };
  render(
    <Boundary what="This text">
      <Away />
    </Boundary>,
  );
  expect(shown()).toContain('This text cannot be shown yet');
  expect(shown()).toContain('Go on line');
  expect(shown()).not.toContain('not as it should be');
});
