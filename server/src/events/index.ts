export { createHub, type Hub, type News } from './hub';
export { eventRoutes } from './routes';
