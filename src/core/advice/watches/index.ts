export { trendsOfWatch, type VisitTrend } from './trends';
export { watchHistory, type WatchHistory, type WatchVisit } from './watchHistory';
