export {
  addMinutes,
  addMonths,
  dayInWords,
  daysInMonth,
  localDay,
  localTime,
  minutesBetween,
  nextDateCorrection,
  yearsBetween,
} from './time';
