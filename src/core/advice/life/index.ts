export { lifeQuestion, usesOf } from './lifeQuestion';
export { type NextVisit, nextVisit } from './nextVisit';
export { fittedAdviceOf } from './leftIn';
