export { countOf, type Part, partInWords, PARTS, PROVED_BY, SERVED, type Served, serves } from './parts';
