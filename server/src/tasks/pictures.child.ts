import { serve } from '../apart/serve';
import { rewritePicture } from '../capture/rewrite-picture';

serve({ rewrite: rewritePicture });
