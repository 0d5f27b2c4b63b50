import { TAPE_KINDS, type Tape } from '@marvet/core/domain/tape';
import { useId } from 'react';

const HEIGHT = 22;
const INK = '#171B1E';
const TEETH = 4;

/** Left and right ends as torn from a roll: a zigzag of small teeth. */
function tornOutline(width: number): string {
  const step = HEIGHT / TEETH;
  const right = Array.from({ length: TEETH }, (_, tooth) => `L${width - (tooth % 2 ? 0 : 3)} ${(tooth + 0.5) * step}`).join(' ');
  const left = Array.from({ length: TEETH }, (_, tooth) => `L${tooth % 2 ? 0 : 3} ${HEIGHT - (tooth + 0.5) * step}`).join(' ');
  return `M1 0 L${width - 1} 0 ${right} L${width - 1} ${HEIGHT} L1 ${HEIGHT} ${left} Z`;
}

function Pattern({ id, pattern }: { id: string; pattern: (typeof TAPE_KINDS)[number]['pattern'] }) {
  const stroke = { stroke: INK, strokeOpacity: 0.34, strokeWidth: 2, fill: 'none' };
  switch (pattern) {
    case 'plain':
      return <pattern id={id} width="8" height="8" patternUnits="userSpaceOnUse" />;
    case 'diagonal':
      return (
        <pattern id={id} width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M2 0V8" {...stroke} />
        </pattern>
      );
    case 'dots':
      return (
        <pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse">
          <circle cx="3" cy="3" r="1.5" fill={INK} fillOpacity="0.45" />
        </pattern>
      );
    case 'bars':
      return (
        <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse">
          <path d="M2 0V6" {...stroke} />
        </pattern>
      );
    case 'cross-hatch':
      return (
        <pattern id={id} width="7" height="7" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
          <path d="M0 3H7M3 0V7" {...stroke} strokeWidth={1} />
        </pattern>
      );
    case 'chevron':
      return (
        <pattern id={id} width="8" height="8" patternUnits="userSpaceOnUse">
          <path d="M0 6L4 2L8 6" {...stroke} />
        </pattern>
      );
    case 'grid':
      return (
        <pattern id={id} width="6" height="6" patternUnits="userSpaceOnUse">
          <path d="M0 3H6M3 0V6" {...stroke} strokeWidth={1} />
        </pattern>
      );
    case 'rings':
      return (
        <pattern id={id} width="9" height="9" patternUnits="userSpaceOnUse">
          <circle cx="4" cy="4" r="2.4" {...stroke} strokeWidth={1.2} />
        </pattern>
      );
  }
}

/** A strip of tape: the mark of a candidate everywhere. Blind ones are grey and carry only a blind letter. */
export function TapeMark({ tape, name, width = 44 }: { tape: Tape; name?: string; width?: number }) {
  const id = useId();
  const kind = TAPE_KINDS[tape.kind] ?? TAPE_KINDS[0];
  return <Strip id={id} width={width} letters={tape.letters} label={name ?? tape.letters} colour={kind.colour} pattern={<Pattern id={id} pattern={kind.pattern} />} />;
}

/** The same strip, grey, for a clip whose identity is not to be known. */
export function BlindMark({ letter, width = 44 }: { letter: string; width?: number }) {
  const id = useId();
  return <Strip id={id} width={width} letters={letter} label={`Clip ${letter}`} colour="#A9ADAD" pattern={<Pattern id={id} pattern="plain" />} />;
}

function Strip({ id, width, letters, label, colour, pattern }: { id: string; width: number; letters: string; label: string; colour: string; pattern: React.ReactNode }) {
  const patch = Math.max(24, letters.length * 12 + 4);
  return (
    <svg className="tape" width={width} height={HEIGHT} viewBox={`0 0 ${width} ${HEIGHT}`} role="img" aria-label={label} aria-hidden={label === ''}>
      <defs>{pattern}</defs>
      <path d={tornOutline(width)} fill={colour} />
      <path d={tornOutline(width)} fill={`url(#${id})`} />
      <rect x={(width - patch) / 2} y="3" width={patch} height={HEIGHT - 6} rx="2" fill="#FFFDF2" fillOpacity="0.82" />
      <text x={width / 2} y={HEIGHT / 2 + 5} textAnchor="middle" fontFamily="var(--mono)" fontWeight="700" fontSize="14" fill={INK}>
        {letters}
      </text>
    </svg>
  );
}
