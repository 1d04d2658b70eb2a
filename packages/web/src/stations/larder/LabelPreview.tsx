import type { Answer } from '@zabrik/contract';
import { labelWords, layLabel, type Measure } from '@zabrik/core';
import { drawingSVG, gs1datamatrix } from 'bwip-js/browser';
import { useMemo } from 'react';
import type { api } from '../../app/endpoints.ts';

type Content = Answer<typeof api.larder.printed>['latest'][number];

const MM = 72 / 25.4;
const FACE = 'Atkinson Hyperlegible Next Variable, sans-serif';

let pen: CanvasRenderingContext2D | null | undefined;
const measure: Measure = (text, size, bold) => {
  pen ??= document.createElement('canvas').getContext('2d');
  if (pen == null) return [...text].length * size * 0.55;
  pen.font = `${bold ? 700 : 400} 100px ${FACE}`;
  return (pen.measureText(text).width * size) / 100;
};

/** A label as it comes out: the same layout as on paper, drawn. */
export function LabelPreview({
  content,
  widthMm,
  heightMm,
  us,
}: {
  readonly content: Content;
  readonly widthMm: number;
  readonly heightMm: number;
  readonly us: boolean;
}) {
  const layout = useMemo(
    () => layLabel(content, widthMm * MM, heightMm * MM, labelWords(us), measure),
    [content, widthMm, heightMm, us],
  );
  const square = useMemo(() => {
    const svg = gs1datamatrix(
      { bcid: 'gs1datamatrix', text: `(${content.element.slice(0, 2)})${content.element.slice(2)}`, scale: 2 },
      drawingSVG(),
    );
    return `data:image/svg+xml,${encodeURIComponent(String(svg))}`;
  }, [content.element]);
  return (
    <svg
      viewBox={`0 0 ${widthMm * MM} ${heightMm * MM}`}
      className="w-full rounded-[4px] border border-line-strong bg-white shadow-[0_2px_5px_rgb(0_0_0/.12)]"
      role="img"
      aria-label={`Label ${content.code}, ${content.name}`}
    >
      {layout.lines.map((l) => (
        <text
          key={`${l.y} ${l.x} ${l.text}`}
          x={l.x}
          y={l.y}
          fontSize={l.size}
          fontWeight={l.bold ? 700 : 400}
          fontFamily={FACE}
        >
          {l.text}
        </text>
      ))}
      <image
        href={square}
        x={layout.square.x}
        y={layout.square.y}
        width={layout.square.side}
        height={layout.square.side}
      />
    </svg>
  );
}
