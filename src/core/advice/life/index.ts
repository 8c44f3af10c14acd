export { lifeQuestion, usesOf } from './lifeQuestion';
export { type NextVisit, nextVisit } from './nextVisit';
