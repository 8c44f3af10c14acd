export * from './chooseOpener';
export * from './fitTools';
export * from './jawSetting';
export * from './kinds';
export * from './measures';
export * from './openingPlan';
