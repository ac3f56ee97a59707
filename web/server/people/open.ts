/** Whether Maypole is open to others than this machine; then everyone needs an account. Set by the start command. */
export function isOpen(): boolean {
  return process.env.MAYPOLE_OPEN === '1';
}
