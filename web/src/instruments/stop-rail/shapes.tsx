/** Ambient is an open ring, flash a solid lozenge, both together an upright bar: never told by colour alone. */
export function Ring() {
  return (
    <>
      <circle r={5.5} fill="none" stroke="var(--panel)" strokeWidth={5.2} />
      <circle r={5.5} fill="none" stroke="var(--ambient)" strokeWidth={2.8} />
    </>
  );
}

export function Lozenge() {
  return <path d="M 0 -8 L 8 0 L 0 8 L -8 0 Z" fill="var(--flash)" stroke="var(--panel)" strokeWidth={1} />;
}

export function Upright({ half }: { half: number }) {
  return (
    <rect x={-2.8} y={-half} width={5.6} height={2 * half} fill="var(--ink)" stroke="var(--panel)" strokeWidth={1} />
  );
}
