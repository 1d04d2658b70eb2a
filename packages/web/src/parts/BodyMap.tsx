import type { Body } from '@zabrik/core';

interface Area {
  readonly pieces: readonly string[];
  readonly d: string;
}

/** Our own drawings of an animal's plan, one closed path an area; the area is lit once all of its pieces are weighed. 240 x 96. */
const drawings: Readonly<Record<Body, readonly Area[]>> = {
  'round-fish': [
    { pieces: ['head', 'gills'], d: 'M6 50 C14 32 30 22 50 19 L58 76 C36 76 16 66 6 50 Z' },
    { pieces: ['fillet'], d: 'M53 18 C90 8 140 16 196 42 L196 47 L55 47 Z' },
    { pieces: ['frame', 'pin'], d: 'M55 49 L196 49 L196 53 L56 57 Z' },
    { pieces: ['belly', 'guts'], d: 'M56 59 L196 54 C150 76 100 84 58 76 Z' },
    { pieces: ['scales-fins'], d: 'M198 44 L232 22 C226 40 226 58 232 76 L198 54 Z' },
  ],
  flatfish: [
    { pieces: ['head', 'gills', 'guts'], d: 'M8 50 C14 38 24 30 38 27 L44 72 C28 70 14 62 8 50 Z' },
    {
      pieces: ['skirt'],
      d: 'M40 25 C80 -2 150 0 200 44 L192 45 C150 14 86 14 44 33 Z M45 66 C86 86 150 86 192 55 L200 56 C150 100 80 98 46 74 Z',
    },
    { pieces: ['fillet', 'skin'], d: 'M44 35 C86 16 150 16 191 46 L46 47 Z M46 53 L191 54 C150 84 86 84 46 64 Z' },
    { pieces: ['frame', 'roe'], d: 'M46 49 L194 48 L194 52 L46 51 Z' },
    { pieces: ['tail'], d: 'M202 45 L232 32 C228 44 228 56 232 68 L202 55 Z' },
  ],
  bird: [
    { pieces: ['supreme', 'trim'], d: 'M40 46 C52 18 112 6 156 26 L150 52 L44 56 Z' },
    { pieces: ['wing'], d: 'M96 34 C122 26 146 34 152 44 C132 56 112 54 96 44 Z' },
    { pieces: ['leg'], d: 'M112 60 L160 46 C190 54 202 70 222 76 L218 84 C190 84 130 90 112 60 Z' },
    { pieces: ['carcass'], d: 'M44 58 L110 60 C114 72 122 80 132 84 C94 92 56 82 44 58 Z' },
    { pieces: ['skin-fat', 'vent'], d: 'M158 26 C172 24 184 32 188 44 L160 44 Z' },
    { pieces: ['neck'], d: 'M42 46 C30 44 20 36 12 22 L20 18 C28 30 36 34 48 32 Z' },
  ],
};

const eye: Readonly<Record<Body, readonly (readonly [number, number])[]>> = {
  'round-fish': [[26, 44]],
  flatfish: [
    [26, 42],
    [30, 56],
  ],
  bird: [],
};

/** The animal as lines, its pieces lit as they come off. A picture beside the figures, never instead of them. */
export function BodyMap({
  body,
  lit,
  className = '',
}: {
  readonly body: Body;
  readonly lit: ReadonlySet<string>;
  readonly className?: string;
}) {
  return (
    <svg viewBox="0 0 240 96" className={className} role="img" aria-label={`Drawing of the cuts, ${lit.size} weighed`}>
      {drawings[body].map((area) => {
        const known = area.pieces.filter((id) => lit.has(id)).length;
        return (
          <path
            key={area.pieces.join()}
            d={area.d}
            fill={known === 0 ? 'var(--color-white)' : 'var(--color-portion)'}
            fillOpacity={known === 0 ? 1 : 0.85}
            stroke="var(--color-ink)"
            strokeWidth="1.6"
            strokeLinejoin="round"
          />
        );
      })}
      {eye[body].map(([cx, cy]) => (
        <circle key={`${cx}-${cy}`} cx={cx} cy={cy} r="2.6" fill="var(--color-ink)" />
      ))}
    </svg>
  );
}
