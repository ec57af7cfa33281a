import { useItems } from '@/device/store/items';
import { StepList } from '@/features/first-steps/first-steps';
import { Page } from '@/ui/page';

export default function FirstSteps() {
  const items = useItems();
  return <Page title="First steps">{items && <StepList items={items} />}</Page>;
}
