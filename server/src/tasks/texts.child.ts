import { serve } from '../apart/serve';
import { TEXT_TASKS } from './texts';

serve(TEXT_TASKS);
