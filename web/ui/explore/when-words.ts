/** A moment in a list of saves: the time of day, with the date if it is not today. */
export function whenWords(text: string): string {
  const at = new Date(text);
  const today = new Date().toDateString() === at.toDateString();
  const clock = at.toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' });
  if (today) return clock;
  // The year is given if it is not this one.
  const year = at.getFullYear() === new Date().getFullYear() ? undefined : 'numeric';
  return `${at.toLocaleDateString('en-GB', { day: 'numeric', month: 'short', year })}, ${clock}`;
}
