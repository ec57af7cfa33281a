import { serve } from './serve';
import { TEXT_TASKS } from './texts';

serve(TEXT_TASKS);
