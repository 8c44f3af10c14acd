export { type ReadyToOpen, readyToOpen } from './readyToOpen';
