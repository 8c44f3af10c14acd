export {
  addMinutes,
  addMonths,
  dayInWords,
  daysBetween,
  daysInMonth,
  instantAt,
  localDay,
  localTime,
  minutesBetween,
  nextDateCorrection,
  nextDay,
  yearsBetween,
} from './time';
