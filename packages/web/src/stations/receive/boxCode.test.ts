import { describe, expect, it } from 'vitest';
import { type BoxRead, readBox } from './boxCode.ts';

const FNC1 = '\u001d';
const box = (code: string): BoxRead => {
  const read = readBox(code, 2026);
  if (typeof read === 'string') throw new Error(read);
  return read;
};

describe('a scanned box', () => {
  it('fills weight, date, count, origin and lot', () => {
    const { fills, says } = box(`0199521234001013310200062417261104${'700527.4.b'}${FNC1}302${FNC1}10T2611A`);
    expect(fills).toEqual({
      invoice: '6240',
      useBy: '2026-11-04',
      catchArea: '27.4.b',
      animals: '2',
      supplierLot: 'T2611A',
      note: 'trade item 99521234001013',
    });
    expect(says).toContain('net weight 6,240 g');
    expect(says).toContain('use by 04/11/2026');
  });

  it('fills gear and method of a fishery box', () => {
    expect(box(`7009GNS${FNC1}701001${FNC1}10T2`).fills).toMatchObject({
      gear: 'GNS',
      method: 'caught',
      supplierLot: 'T2',
    });
    expect(box(`701009${FNC1}10T2`).fills.method).toBeUndefined();
  });

  it('reads what is printed with brackets, and pounds', () => {
    expect(box('(01)99521234007053(3202)002550(16)261201(10)P_12').fills).toMatchObject({
      invoice: '11566.605',
      useBy: '2026-12-01',
    });
  });

  it('lets use-by stand where best before is there too', () => {
    expect(box('1726110415261110').fills.useBy).toBe('2026-11-04');
    expect(box('1526111017261104').fills.useBy).toBe('2026-11-04');
  });

  it('says what to look at', () => {
    expect(box('0199521234001013').mind[0]).toContain('put it on the scale');
    expect(box('019952123400101310T2611A17261104').mind.join()).toContain('the lot is T2611A and the date 04/11/2026');
  });

  it.each([
    ['019952123400101410T1', 'check digit'],
    ['010952123400208617261304', 'no such month'],
    ['010952123400208617261131', 'no such day'],
    ['020952123400208615261110', 'not how many'],
    ['0199521234001013310300624', 'Scan it again'],
    ['01095212340020860512345', 'no known element'],
    ['01095212340020860209521234006022375', 'at once'],
    ['not a code at all', 'no known element'],
    ['(01)12', 'cannot be read'],
    ['(10)', 'cannot be read'],
    ['', 'nothing in this code'],
    ['9'.repeat(10_000), 'this long'],
  ])('%#: says plainly why it cannot be read', (code, words) => {
    expect(readBox(code, 2026)).toContain(words);
  });
});
