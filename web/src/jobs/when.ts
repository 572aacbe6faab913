/** When something was saved, as people say it: the hour today, the day and the hour before. */
export function when(savedAt: string): string {
  const at = new Date(savedAt);
  const today = at.toDateString() === new Date().toDateString();
  const hour = at.toLocaleTimeString(undefined, { hour: '2-digit', minute: '2-digit' });
  return today ? hour : `${at.toLocaleDateString()}, ${hour}`;
}
