export { PodcastScreen as default } from '@/features/podcast/podcast-screen';
