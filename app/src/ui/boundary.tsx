import { Component, type ReactNode } from 'react';
import { Text, View } from 'react-native';
import { Button } from './button';

interface BoundaryProps {
  /** What may fail, as it is called: “This text”. */
  what: string;
  /** The way out, where what stands here has its own way out in it. */
  out?: { label: string; press(): void } | undefined;
  /** Where the reader is: elsewhere, what could not be drawn is over. */
  at?: string | undefined;
  children: ReactNode;
}

/** Thrown where a part of the app that is fetched later cannot be fetched. */
export class PartAway extends Error {}

interface BoundaryState {
  /** Why it could not be drawn; null while it can. */
  says: string | null;
  /** It is not here yet; nothing is wrong with it. */
  isAway: boolean;
  at: string | undefined;
}

/**
 * Stands around a screen or a part of one: when it cannot be drawn, it says so and the rest goes on. It is not made again
 * where the reader goes elsewhere, since a navigator inside it would then forget where it is.
 */
export class Boundary extends Component<BoundaryProps, BoundaryState> {
  override state: BoundaryState = { says: null, isAway: false, at: this.props.at };

  static getDerivedStateFromError(error: unknown): Partial<BoundaryState> {
    return {
      says: error instanceof Error ? error.message : 'It does not say why.',
      isAway: error instanceof PartAway,
    };
  }

  static getDerivedStateFromProps({ at }: BoundaryProps, state: BoundaryState): BoundaryState | null {
    return at === state.at ? null : { says: null, isAway: false, at };
  }

  override render() {
    const { says, isAway } = this.state;
    if (says === null) return this.props.children;
    return (
      <View role="alert" className="flex-1 items-start gap-[12px] bg-ground px-[22px] py-[32px]">
        <Text className="font-read text-title font-semibold text-ink">{`${this.props.what} cannot be shown${isAway ? ' yet' : ''}`}</Text>
        <Text className="font-ui text-base text-ink">
          {isAway
            ? 'What it is shown with has not come to this device yet. Go on line, and try again: from then on it is here.'
            : 'Something in it is not as it should be. Nothing is lost, and everything else goes on as before.'}
        </Text>
        {!isAway && <Text className="font-ui text-small text-soft">{says}</Text>}
        <View className="flex-row flex-wrap gap-[10px]">
          <Button label="Try again" onPress={() => this.setState({ says: null })} />
          {this.props.out && <Button label={this.props.out.label} onPress={this.props.out.press} />}
        </View>
      </View>
    );
  }
}
