export * from './asks';
export * from './devices';
export * from './drivers';
