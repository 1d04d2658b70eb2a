import type { YieldSheet as Sheet } from '@zabrik/contract';
import {
  aMass,
  type CostingSchool,
  costingSchools,
  costPerKg,
  formatMass,
  formatShare,
  perHouseMass,
} from '@zabrik/core';
import { RangeBar } from '../../kit/RangeBar.tsx';
import { clothOf, trayName } from '../../parts/destinations.ts';
import { HowLink } from '../../parts/HowLink.tsx';

export const schoolNames: Readonly<Record<CostingSchool, string>> = {
  weight: 'By weight',
  'by-product-credit': 'By-product credit',
};

/** A share on a small ruler: the usual range as a bar, this one as a mark. */
function Against({ share, low, high }: { readonly share: number; readonly low: number; readonly high: number }) {
  const reach = Math.max(high - low, 0.01);
  return <RangeBar low={low} high={high} value={share} from={low - reach} to={high + reach} />;
}

const verdict = (share: number, low: number, high: number): string =>
  share < low ? 'below' : share > high ? 'above' : 'inside';

/** Each piece with its shares of the stage and of the purchase, against the handbook and this house, and what it costs under each school. */
export function YieldRows({ sheet, money }: { readonly sheet: Sheet; readonly money: (minor: number) => string }) {
  const total = (school: CostingSchool): number =>
    sheet.rows.reduce((sum, row) => sum + (row.costMinor[school] ?? 0), 0);
  const { startShare, stageIndex } = sheet.breakdown;
  const answered = (school: CostingSchool): boolean => sheet.rows.every((row) => row.costMinor[school] !== null);
  return (
    <table className="w-full min-w-[1120px] table-fixed border-collapse text-left text-[15px] print:min-w-0">
      <caption className="sr-only">Pieces with their shares and costs</caption>
      <thead className="align-bottom text-[13px] text-ink-soft">
        <tr className="border-b border-ink">
          <th className="py-1.5 pr-2 font-semibold">Piece</th>
          <th className="w-[82px] py-1.5 pr-3 text-right font-semibold">Mass</th>
          <th className="w-[70px] py-1.5 pr-3 text-right font-semibold">of stage</th>
          <th className="w-[96px] py-1.5 pr-3 text-right font-semibold">of purchase</th>
          <th className="w-[196px] py-1.5 print:w-[158px] pr-3 font-semibold">Handbook, usual range</th>
          <th className="w-[210px] py-1.5 print:w-[190px] pr-3 font-semibold">This house, 8 of 10</th>
          {costingSchools.map((school) => (
            <th key={school} className="w-[122px] py-1.5 print:w-[104px] text-right font-semibold">
              {schoolNames[school]}
              {school === sheet.bookedSchool && <span className="block font-normal">booked</span>}
            </th>
          ))}
        </tr>
      </thead>
      <tbody>
        {sheet.rows.map((row, i) => (
          <tr key={`${row.pieceId}/${row.destination}`} className="border-b border-line">
            <td className="py-1.5 pr-2 leading-tight">
              <span className="flex items-center gap-2">
                <span className={`size-4 shrink-0 rounded-[3px] ${clothOf[row.destination]}`} aria-hidden="true" />
                <span className="min-w-0">
                  <span className={`block truncate print:whitespace-normal ${row.main ? 'font-bold' : ''}`}>
                    {row.name}
                  </span>
                  <span className="block truncate print:whitespace-normal text-[13px] text-ink-soft">
                    {trayName(row.destination).toLowerCase()}
                    {row.count > 1 && `, ${row.count}`}
                    {row.broughtMg > 0 && ` · ${formatMass(row.broughtMg)} joined to it, not in these weights`}
                    {row.lotCode !== null && ` · ${row.lotCode}`}
                  </span>
                </span>
              </span>
            </td>
            <td className="figure py-1.5 pr-3 text-right">{formatMass(row.massMg)}</td>
            <td className="py-1.5 pr-3 text-right">{formatShare(row.shareOfStage)}</td>
            <td className="py-1.5 pr-3 text-right">{formatShare(row.shareOfPurchase)}</td>
            {sheet.rows.findIndex((r) => r.pieceId === row.pieceId) < i ? (
              <td colSpan={2} className="py-1.5 pr-3 text-[13px] text-ink-soft">
                judged with the rest of it, above
              </td>
            ) : (
              <>
                <td className="py-1.5 pr-3">
                  <Against share={row.shareOfPiece} low={row.handbook.low} high={row.handbook.high} />
                  <span className="text-[13px] text-ink-soft">
                    {row.trays > 1 && `${formatShare(row.shareOfPiece)} in all: `}
                    {formatShare(row.handbook.low, 1)} to {formatShare(row.handbook.high, 1)},{' '}
                    {verdict(row.shareOfPiece, row.handbook.low, row.handbook.high)}
                  </span>
                </td>
                <td className="py-1.5 pr-3">
                  {row.house === null ? (
                    <span className="text-[13px] text-ink-soft">no earlier ones</span>
                  ) : (
                    <>
                      <Against share={row.shareOfPiece} low={row.house.low} high={row.house.high} />
                      <span className="text-[13px] text-ink-soft">
                        {formatShare(row.house.low, 1)} to {formatShare(row.house.high, 1)},{' '}
                        {verdict(row.shareOfPiece, row.house.low, row.house.high)}, of {row.house.records}
                      </span>
                    </>
                  )}
                </td>
              </>
            )}
            {costingSchools.map((school) => {
              const cost = row.costMinor[school];
              // nought because it is worth nothing, or because nobody has said what it is worth
              const unsaid =
                school === 'by-product-credit' && !row.main && !row.worthSaid && row.destination !== 'waste';
              const perKg = cost === null ? undefined : costPerKg(cost, row.massMg);
              return (
                <td key={school} className="py-1.5 text-right leading-tight">
                  {unsaid ? (
                    <span className="text-[13px] text-ink-soft">no worth said</span>
                  ) : (
                    <span className="figure font-semibold">{cost === null ? '–' : money(cost)}</span>
                  )}
                  <span className="block text-[13px] whitespace-nowrap text-ink-soft">
                    {cost !== null && cost > 0 && perKg !== undefined && `${money(perHouseMass(perKg))} ${aMass()}`}
                  </span>
                  {cost !== null && cost > 0 && row.count > 1 && row.trays === 1 && (
                    <span className="block text-[13px] whitespace-nowrap text-ink-soft">
                      {money(cost / row.count)} each
                    </span>
                  )}
                </td>
              );
            })}
          </tr>
        ))}
      </tbody>
      <tfoot>
        <tr className="border-b border-line">
          <td className="py-1.5 text-ink-soft">
            unaccounted: drip and scale <HowLink to="balance" of="what is unaccounted for" />
          </td>
          <td className="figure py-1.5 pr-3 text-right">{formatMass(sheet.unaccountedMg)}</td>
          <td className="py-1.5 pr-3 text-right">{formatShare(sheet.unaccountedShare)}</td>
          <td className="py-1.5 pr-3 text-right">{formatShare(sheet.unaccountedShare * startShare)}</td>
          <td colSpan={4} />
        </tr>
        <tr className="border-t-2 border-ink font-bold">
          <td className="py-2">start, and what it cost</td>
          <td className="figure py-2 pr-3 text-right">{formatMass(sheet.purchase.massMg)}</td>
          <td className="py-2 pr-3 text-right whitespace-nowrap">100 %</td>
          <td className="py-2 pr-3 text-right whitespace-nowrap">{formatShare(startShare)}</td>
          <td colSpan={2} className="py-2 pr-3 text-right font-normal text-ink-soft">
            {stageIndex === 0 ? 'invoice' : 'carried on'} {money(sheet.purchase.paidMinor)},{' '}
            {money(perHouseMass(sheet.purchase.minorPerKg))} {aMass()}
          </td>
          {costingSchools.map((school) => (
            <td key={school} className="figure py-2 text-right" data-testid={`total-${school}`}>
              {answered(school) ? money(total(school)) : 'no answer'}
            </td>
          ))}
        </tr>
      </tfoot>
    </table>
  );
}
