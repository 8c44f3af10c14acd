/** Seconds as one reads a countdown: `0:42`, `3:05 h`. */
export function countdown(seconds: number): string {
  const whole = Math.max(0, Math.round(seconds));
  if (whole >= 3600) {
    const minutes = Math.floor(whole / 60);
    return `${Math.floor(minutes / 60)}:${String(minutes % 60).padStart(2, '0')} h`;
  }
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`;
}
