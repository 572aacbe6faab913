import type { Kit } from './client';

/** What a card may be of, on the set as in the kit. */
export const cardKinds: { id: Kit['boards'][number]['kind']; label: string }[] = [
  { id: 'white', label: 'White' },
  { id: 'silver', label: 'Silver' },
  { id: 'gold', label: 'Gold' },
  { id: 'black', label: 'Black' },
  { id: 'diffuser', label: 'Diffusing cloth' },
  { id: 'mirror', label: 'Mirror' },
];
