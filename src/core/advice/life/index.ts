export { lifeQuestion, usesOf } from './lifeQuestion';
