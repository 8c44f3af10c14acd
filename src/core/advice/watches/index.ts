export { trendsOfWatch, type VisitTrend } from './trends';
export { earlierReadings, watchHistory, type WatchHistory, type WatchVisit } from './watchHistory';
