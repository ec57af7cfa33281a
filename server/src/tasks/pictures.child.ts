import { rewritePicture } from '../capture/rewrite-picture';
import { serve } from '../apart/serve';

serve({ rewrite: rewritePicture });
