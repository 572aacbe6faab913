/** Ambient is an open ring, flash a solid lozenge, both together an upright bar: never told by colour alone. */
export function Ring() {
  return (
    <>
      <circle r={5.5} fill="none" stroke="var(--panel)" strokeWidth={5.2} />
      <circle r={5.5} fill="none" stroke="var(--ambient)" strokeWidth={2.8} />
    </>
  );
}

/** A flash; with its letter where it is given. */
export function Lozenge({ letter }: { letter?: string }) {
  const half = letter ? 11 : 8;
  return (
    <>
      <path d={`M 0 ${-half} L ${half} 0 L 0 ${half} L ${-half} 0 Z`} fill="var(--flash)" stroke="var(--panel)" />
      {letter && (
        <text className="letter" y={4.5} textAnchor="middle">
          {letter}
        </text>
      )}
    </>
  );
}

export function Upright({ half }: { half: number }) {
  return (
    <rect x={-2.8} y={-half} width={5.6} height={2 * half} fill="var(--ink)" stroke="var(--panel)" strokeWidth={1} />
  );
}
