import type { MeteringMethodOffer } from '../../api/client';

type Pointing = MeteringMethodOffer['in_sun']['pointing'];

const says: Record<Pointing, string> = {
  under_the_sun: 'The meter at the face, pointed level at the horizon under the sun',
  towards_the_camera: 'The meter at the face, pointed at the camera',
  at_the_surface: 'The camera or spot meter pointed at the surface',
};

/** Where to hold the meter and which way to point it, drawn from the side. */
export function PointingDrawing({ pointing }: { pointing: Pointing }) {
  const spot = pointing === 'at_the_surface';
  return (
    <svg viewBox="0 0 150 62" width="150" height="62" role="img" aria-label={says[pointing]}>
      <line x1={4} x2={146} y1={56} y2={56} stroke="var(--line)" />
      {/* The subject, from the side, facing the camera. */}
      <circle cx={34} cy={22} r={11} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
      <path d="M 44 19 L 49 24 L 44 26" fill="none" stroke="var(--ink)" strokeWidth={1.8} />
      <path d="M 24 56 Q 24 36 34 36 Q 44 36 44 56" fill="none" stroke="var(--ink)" strokeWidth={1.8} />
      <rect x={124} y={17} width={18} height={13} rx={2.5} fill="var(--ink)" />
      <rect x={118} y={20} width={6} height={7} fill="var(--ink)" />
      {spot ? (
        <>
          <path d="M 116 23.5 L 54 17 M 116 23.5 L 54 29" stroke="var(--ambient)" strokeWidth={1.6} fill="none" />
          <circle cx={52} cy={23} r={6} fill="none" stroke="var(--ambient)" strokeWidth={1.8} strokeDasharray="2.5 2" />
        </>
      ) : (
        <>
          <rect x={54} y={19} width={7} height={17} rx={2} fill="var(--ink)" />
          <path d="M 61 19 A 6 6 0 0 1 61 31 Z" fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.6} />
          {pointing === 'under_the_sun' ? (
            <>
              <circle cx={98} cy={8} r={5.5} fill="none" stroke="var(--ambient)" strokeWidth={2.6} />
              <path d="M 98 17 L 98 52" stroke="var(--ambient)" strokeDasharray="2 3" />
              <path
                d="M 69 25 L 94 25 M 89 21.5 L 94 25 L 89 28.5"
                stroke="var(--ambient)"
                strokeWidth={1.8}
                fill="none"
              />
            </>
          ) : (
            <path
              d="M 69 24 L 112 24 M 107 20.5 L 112 24 L 107 27.5"
              stroke="var(--ambient)"
              strokeWidth={1.8}
              fill="none"
            />
          )}
        </>
      )}
    </svg>
  );
}
