import { serve } from './serve';

await serve();
