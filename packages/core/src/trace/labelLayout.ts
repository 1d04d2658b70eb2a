/** Where the words of a label stand. Pure: who draws it says how wide a text is. */
import { formatMass } from '../quantity/mass.ts';
import { Refusal } from '../refusal.ts';
import type { LabelContent } from './label.ts';

/** Width of a text in points at a size. */
export type Measure = (text: string, size: number, bold: boolean) => number;

export interface LabelLine {
  readonly text: string;
  readonly x: number;
  /** Baseline, from the top. */
  readonly y: number;
  readonly size: number;
  readonly bold: boolean;
}

export interface LabelLayout {
  readonly lines: readonly LabelLine[];
  readonly square: { readonly x: number; readonly y: number; readonly side: number };
}

export interface LabelWords {
  readonly dates: Readonly<Record<LabelContent['dates'][number]['kind'], string>>;
  readonly day: (iso: string) => string;
  readonly allergens: (ids: readonly string[]) => readonly string[];
  readonly contains: string;
  readonly noAllergens: string;
  readonly ready: string;
  readonly raw: string;
  readonly reprint: string;
}

const LEADING = 1.14;
const SMALLEST = 3.6;
/** Below this the type is not made smaller for what may go. */
const COMFORTABLE = 6.4;

const breakWord = (word: string, width: number, size: number, bold: boolean, measure: Measure): string[] => {
  const parts: string[] = [];
  let part = '';
  for (const letter of word) {
    if (part !== '' && measure(part + letter, size, bold) > width) {
      parts.push(part);
      part = '';
    }
    part += letter;
  }
  return part === '' ? parts : [...parts, part];
};

/** Breaks a text into lines no wider than this; a word that is wider alone is broken. */
export function wrap(text: string, width: number, size: number, bold: boolean, measure: Measure): string[] {
  const lines: string[] = [];
  let line = '';
  for (const word of text
    .split(' ')
    .flatMap((w) => (measure(w, size, bold) > width ? breakWord(w, width, size, bold, measure) : [w]))) {
    const longer = line === '' ? word : `${line} ${word}`;
    if (line !== '' && measure(longer, size, bold) > width) {
      lines.push(line);
      line = word;
    } else line = longer;
  }
  return line === '' ? lines : [...lines, line];
}

/**
 * Lays a label out: as large as everything that must stand on it allows. What may go when there is no room for type of this size is
 * where it came from, and of a very long name the end; the dates, the storage, the code and the allergens never.
 *
 * Units   points, from the top left.
 * Errors  `label_too_small`: at the smallest readable type it does not hold what must stand on it.
 */
export function layLabel(
  content: LabelContent,
  width: number,
  height: number,
  words: LabelWords,
  measure: Measure,
): LabelLayout {
  const margin = Math.min(6, height * 0.06);
  const side = Math.min(height * 0.42, width * 0.26);
  const inner = width - 2 * margin;
  const beside = inner - side - margin;
  const useBy = content.dates.find((d) => d.kind === 'use-by');
  const others = content.dates
    .filter((d) => d.kind !== 'use-by')
    .map((d) => `${words.dates[d.kind]} ${words.day(d.day)}`);
  const allergens =
    content.allergens.length === 0
      ? words.noAllergens
      : `${words.contains} ${words.allergens(content.allergens).join(', ')}`;
  const optional = content.from === null || content.from === '' ? [] : [content.from];
  for (let kept = optional.length; kept >= 0; kept -= 1) {
    for (let base = Math.min(10, height / 9); base >= (kept > 0 ? COMFORTABLE : SMALLEST); base -= 0.2) {
      const lines: LabelLine[] = [];
      let y = margin;
      const put = (text: string, size: number, bold: boolean, most = Number.POSITIVE_INFINITY): void => {
        const wrapped = wrap(text, y < margin + side ? beside : inner, size, bold, measure);
        for (const [i, t] of wrapped.slice(0, most).entries()) {
          y += size * LEADING;
          const cut = i === most - 1 && wrapped.length > most;
          lines.push({ text: cut ? `${t.slice(0, -1)}…` : t, x: margin, y, size, bold });
        }
      };
      put(content.name, base * 1.3, true, 2);
      put(
        `${formatMass(content.massMg)}${content.pieces > 1 ? `, ${content.pieces} pieces` : ''} · ${content.ready ? words.ready : words.raw} · ${content.place}`,
        base,
        false,
      );
      if (useBy !== undefined) put(`${words.dates['use-by']} ${words.day(useBy.day)}`, base * 1.45, true);
      put(others.join(' · '), base, false);
      put(allergens, base, true);
      for (const text of optional.slice(0, kept)) put(text, base * 0.9, false, 1);
      // the code and who made the label stand at the foot
      const foot = `${content.by}${content.reprint ? ` · ${words.reprint}` : ''}`;
      y += base * LEADING;
      const footY = Math.max(y, height - margin);
      lines.push({ text: foot, x: margin, y: footY, size: base * 0.9, bold: content.reprint });
      const codeSize = Math.min(base * 1.5, (side / Math.max(1, measure(content.code, 1, true))) * 0.98);
      const square = { x: width - margin - side, y: margin, side };
      const codeY = margin + side + codeSize * LEADING;
      const codeWidth = measure(content.code, codeSize, true);
      const clash = lines.some(
        (l) =>
          l.y > margin + side &&
          l.y - l.size < codeY &&
          l.x + measure(l.text, l.size, l.bold) > width - margin - codeWidth - 2,
      );
      lines.push({ text: content.code, x: width - margin - codeWidth, y: codeY, size: codeSize, bold: true });
      if (y <= height - margin + 0.01 && !clash) return { lines, square };
    }
  }
  throw new Refusal('label_too_small', { name: content.name, allergens: content.allergens.length });
}
