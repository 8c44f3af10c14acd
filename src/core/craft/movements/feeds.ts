import { FUNCTION_KINDS, type FunctionKind } from './types';

/** What a place for a cell is called by what it feeds. */
const NAMES: Readonly<Partial<Record<FunctionKind, RegExp>>> = {
  hands: /hand|time|motor|main/i,
  'seconds hand': /hand|time|motor|main/i,
  'digital display': /display|digital|lcd/i,
  light: /light|lamp|upper/i,
  alarm: /alarm|buzz/i,
  chronograph: /chrono|counter/i,
};

/** What a place for a cell feeds by the name a technician gave it; empty where the name does not say. */
export function feedsByName(name: string): readonly FunctionKind[] {
  return FUNCTION_KINDS.filter((each) => NAMES[each]?.test(name) ?? false);
}
