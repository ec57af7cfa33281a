import { later } from '@/features/shell/later';

export default later('DossiersFrame');
