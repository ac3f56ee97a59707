/** A moment as it is said in a list of saves: the time of day, with the day where it is not today. */
export function whenWords(text: string): string {
  const at = new Date(text);
  const today = new Date().toDateString() === at.toDateString();
  const clock = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  if (today) return clock;
  // Years ago it is another year's day.
  const year = at.getFullYear() === new Date().getFullYear() ? undefined : 'numeric';
  return `${at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year })}, ${clock}`;
}
