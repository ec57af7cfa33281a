import { serve } from '../apart/serve';
import { lookAt } from '../capture/look-at';

serve({ 'look-at': lookAt });
