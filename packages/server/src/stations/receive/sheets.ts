/** Prices and a delivery on paper. */
import type { Delivery } from '@zabrik/contract';
import { refusalNames } from '@zabrik/contract/claim-words';
import { formatDegrees, formatMass, formatMoney, formatPerMass } from '@zabrik/core';
import type { Content } from 'pdfmake/interfaces';
import { dayOnPaper } from '../../paper/dateWords.ts';
import { table } from '../../paper/letter.ts';
import { heading, line, nothing } from '../../paper/sheet.ts';

export interface PriceLine {
  readonly item: string;
  readonly supplierName: string;
  readonly minorPerKg: number;
  readonly unit: string;
  readonly validFrom: string;
  readonly beforeMinor: number | null;
}

/** Every price that counts today, each supplier under its own heading. */
export function priceSheet(prices: readonly PriceLine[], currency: string, tax: string): Content[] {
  if (prices.length === 0) return [nothing('No list counts yet.')];
  const suppliers = new Map<string, PriceLine[]>();
  for (const p of prices) suppliers.set(p.supplierName, [...(suppliers.get(p.supplierName) ?? []), p]);
  const groups = [...suppliers]
    .sort(([a], [b]) => a.localeCompare(b))
    .flatMap(([supplier, some]): Content[] => [
      heading(supplier),
      table(
        [
          { head: 'Item' },
          { head: 'Sold by', width: 84 },
          { head: 'Since', width: 96 },
          { head: 'Before', figures: true },
          { head: 'Price', figures: true },
        ],
        some.map((p) => [
          p.item,
          p.unit,
          dayOnPaper(p.validFrom),
          p.beforeMinor === null ? '' : formatPerMass(p.beforeMinor, currency),
          formatPerMass(p.minorPerKg, currency),
        ]),
      ),
    ]);
  return [...(tax === '' ? [] : [line(`Prices ${tax}`)]), ...groups];
}

/** What a supplier brought: each line as it was weighed, measured and decided. */
export function deliverySheet(delivery: Delivery, currency: string, tax: string, showsCosts: boolean): Content[] {
  const decided = (l: Delivery['lines'][number]): string =>
    l.verdict === 'accepted'
      ? 'accepted'
      : `${l.verdict === 'part' ? `${formatMass(l.refusedMg)} went back` : 'refused'}: ${refusalNames[l.refusedReason ?? ''] ?? 'no reason said'}`;
  return [
    line(
      [
        `Received by ${delivery.by}`,
        delivery.invoice === null ? '' : `invoice ${delivery.invoice}`,
        delivery.closedAt === null ? 'not closed yet' : '',
        showsCosts && tax !== '' ? `prices ${tax}` : '',
      ]
        .filter((t) => t !== '')
        .join(' · '),
    ),
    table(
      [
        { head: 'Code', width: 52 },
        { head: 'What' },
        { head: 'Invoiced', figures: true },
        { head: 'Weighed', figures: true },
        { head: 'At', figures: true },
        ...(showsCosts ? [{ head: 'Paid', figures: true }] : []),
        { head: 'Decided', width: 92 },
      ],
      delivery.lines.map((l) => [
        l.code ?? '',
        [
          `${l.speciesName}${l.formName === '' ? '' : `, ${l.formName}`}`,
          [
            l.origin ?? '',
            l.useBy === null ? '' : `use by ${dayOnPaper(l.useBy)}`,
            l.note ?? '',
            l.reversed ? 'TAKEN BACK' : '',
          ]
            .filter((t) => t !== '')
            .join('; '),
        ]
          .filter((t) => t !== '')
          .join('\n'),
        l.invoiceMg === null ? 'not said' : formatMass(l.invoiceMg),
        l.grossMg === null ? 'not weighed' : formatMass(l.netMg),
        l.temperatureCentiC === null ? 'not measured' : formatDegrees(l.temperatureCentiC / 100),
        ...(showsCosts ? [formatMoney(l.paidMinor, currency)] : []),
        decided(l),
      ]),
    ),
    line('Received by ________________________   Driver ________________________'),
  ];
}
