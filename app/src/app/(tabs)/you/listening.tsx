import { reading } from '@/features/shell/later';

export default reading.screen('ListeningPage');
