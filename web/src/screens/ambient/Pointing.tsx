import type { Instruction } from '../../api/client';

type Pointing = Instruction['pointing'];

const says: Record<Pointing, string> = {
  under_the_sun: 'The meter at the face, pointed level at the horizon under the sun',
  towards_the_camera: 'The meter at the face, pointed at the camera',
  away_from_the_light: 'The meter at the shadow cheek, turned away from the light',
  behind_the_subject: 'The meter at what lies behind, pointed at the camera',
  at_the_surface: 'The camera or spot meter pointed at the face',
  at_what_lies_behind: 'The camera or spot meter pointed past the subject at what lies behind',
};

/** A meter with its dome, which looks to the right. */
function Meter({ x, turned = false }: { x: number; turned?: boolean }) {
  return (
    <g transform={`translate(${x} 19)${turned ? ' scale(-1 1)' : ''}`}>
      <rect x={0} y={0} width={7} height={17} rx={2} fill="var(--ink)" />
      <path d="M 7 0 A 6 6 0 0 1 7 12 Z" fill="var(--panel)" stroke="var(--ink)" strokeWidth={1.6} />
    </g>
  );
}

function Arrow({ from, to, y }: { from: number; to: number; y: number }) {
  const back = to > from ? -5 : 5;
  return (
    <path
      d={`M ${from} ${y} L ${to} ${y} M ${to + back} ${y - 3.5} L ${to} ${y} L ${to + back} ${y + 3.5}`}
      stroke="var(--ambient)"
      strokeWidth={1.8}
      fill="none"
    />
  );
}

function Sun({ x, y }: { x: number; y: number }) {
  return <circle cx={x} cy={y} r={5.5} fill="none" stroke="var(--ambient)" strokeWidth={2.6} />;
}

/** Where to hold the meter and which way to point it, drawn from the side: what lies behind, the subject, the camera. */
export function PointingDrawing({ pointing }: { pointing: Pointing }) {
  const behind = pointing === 'behind_the_subject' || pointing === 'at_what_lies_behind';
  return (
    <svg viewBox="0 0 190 62" width="190" height="62" role="img" aria-label={says[pointing]}>
      <line x1={4} x2={186} y1={56} y2={56} stroke="var(--line)" />
      {/* What lies behind: a wall with a window. */}
      <g stroke={behind ? 'var(--ink)' : 'var(--line)'} strokeWidth={1.8} fill="none">
        <path d="M 8 56 V 10 H 22 V 56" />
        <path d="M 11 18 H 19 V 30 H 11 Z" />
      </g>
      {/* The subject, from the side, facing the camera. */}
      <g transform="translate(50 0)">
        <circle cx={34} cy={22} r={11} fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <path d="M 44 19 L 49 24 L 44 26" fill="none" stroke="var(--ink)" strokeWidth={1.8} />
        <path d="M 24 56 Q 24 36 34 36 Q 44 36 44 56" fill="none" stroke="var(--ink)" strokeWidth={1.8} />
      </g>
      <rect x={168} y={17} width={18} height={13} rx={2.5} fill="var(--ink)" />
      <rect x={162} y={20} width={6} height={7} fill="var(--ink)" />
      {pointing === 'under_the_sun' && (
        <>
          <Meter x={104} />
          <Sun x={146} y={8} />
          <path d="M 146 17 L 146 52" stroke="var(--ambient)" strokeDasharray="2 3" />
          <Arrow from={119} to={142} y={25} />
        </>
      )}
      {pointing === 'towards_the_camera' && (
        <>
          <Meter x={104} />
          <Arrow from={119} to={158} y={25} />
        </>
      )}
      {pointing === 'away_from_the_light' && (
        <>
          {/* The light comes from the camera's side; the dome looks the other way, past the cheek. */}
          <path d="M 73 13 A 11 11 0 0 0 73 31 Z" fill="var(--ink)" opacity={0.55} />
          <Meter x={66} turned />
          <Arrow from={52} to={34} y={25} />
          <Sun x={128} y={8} />
          <path d="M 121 11 L 100 19" stroke="var(--ambient)" strokeWidth={1.4} strokeDasharray="3 2.5" />
        </>
      )}
      {pointing === 'behind_the_subject' && (
        <>
          <Meter x={27} />
          <Arrow from={42} to={64} y={25} />
        </>
      )}
      {pointing === 'at_the_surface' && (
        <>
          <path d="M 160 23.5 L 104 17 M 160 23.5 L 104 29" stroke="var(--ambient)" strokeWidth={1.6} fill="none" />
          <circle
            cx={101}
            cy={23}
            r={6}
            fill="none"
            stroke="var(--ambient)"
            strokeWidth={1.8}
            strokeDasharray="2.5 2"
          />
        </>
      )}
      {pointing === 'at_what_lies_behind' && (
        <>
          <path d="M 160 21 L 26 7 M 160 23 L 26 14" stroke="var(--ambient)" strokeWidth={1.6} fill="none" />
          <circle cx={15} cy={13} r={6} fill="none" stroke="var(--ambient)" strokeWidth={1.8} strokeDasharray="2.5 2" />
        </>
      )}
    </svg>
  );
}
