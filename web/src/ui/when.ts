const two = (number: number) => String(number).padStart(2, '0');

/** When something was saved: the hour today, the day and the hour before. */
export function when(savedAt: string): string {
  const at = new Date(savedAt);
  const hour = `${two(at.getHours())}:${two(at.getMinutes())}`;
  if (at.toDateString() === new Date().toDateString()) return hour;
  return `${at.getFullYear()}-${two(at.getMonth() + 1)}-${two(at.getDate())}, ${hour}`;
}

/** The hour and the minute of a clock in milliseconds. */
export function clockOf(milliseconds: number): string {
  const at = new Date(milliseconds);
  return `${two(at.getHours())}:${two(at.getMinutes())}`;
}
