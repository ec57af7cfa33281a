import { rewritePicture } from '../capture/rewrite-picture';
import { serve } from './serve';

serve({ rewrite: rewritePicture });
