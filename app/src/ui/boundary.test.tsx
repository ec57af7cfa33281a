import { fireEvent, render, screen } from '@testing-library/react-native';
import { Text } from 'react-native';
import { Boundary } from './boundary';

let broken = true;
function Part() {
  if (broken) throw new RangeError('Invalid time value');
  return <Text>The list</Text>;
}

beforeEach(() => {
  broken = true;
  // React writes down what a boundary caught.
  jest.spyOn(console, 'error').mockImplementation(() => undefined);
});
afterEach(() => jest.restoreAllMocks());

it('says what cannot be shown and why, and shows it when it can be', () => {
  render(<Boundary what="This list"><Part /></Boundary>); // prettier-ignore
  expect(screen.getByText('This list cannot be shown')).toBeTruthy();
  expect(screen.getByText('Invalid time value')).toBeTruthy();
  broken = false;
  fireEvent.press(screen.getByText('Try again'));
  expect(screen.getByText('The list')).toBeTruthy();
});

it('is over where the reader goes elsewhere, and what is inside is not made anew', () => {
  const at = (place: string) => <Boundary what="This screen" at={place}><Part /></Boundary>; // prettier-ignore
  render(at('marks'));
  expect(screen.queryByText('This screen cannot be shown')).toBeTruthy();
  broken = false;
  screen.rerender(at('library'));
  expect(screen.getByText('The list')).toBeTruthy();
});
