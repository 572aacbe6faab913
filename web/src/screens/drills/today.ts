/** The day it is here, as 2026-11-27: practice is counted by days. */
export function today(): string {
  const now = new Date();
  const two = (part: number) => String(part).padStart(2, '0');
  return `${now.getFullYear()}-${two(now.getMonth() + 1)}-${two(now.getDate())}`;
}
