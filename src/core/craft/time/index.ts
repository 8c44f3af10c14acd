export {
  addMinutes,
  addMonths,
  dayInWords,
  daysBetween,
  daysInMonth,
  localDay,
  localTime,
  minutesBetween,
  nextDateCorrection,
  yearsBetween,
} from './time';
