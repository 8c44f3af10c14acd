export {
  countOf,
  type Part,
  partInWords,
  partNamedIn,
  PARTS,
  PROVED_BY,
  SERVED,
  type Served,
  serves,
} from './parts';
