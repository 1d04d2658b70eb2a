import { cameAs } from '@zabrik/core';
import { z } from 'zod';
import { endpoint } from '../endpoint.ts';
import {
  amountMinor,
  cursor,
  day,
  id,
  instant,
  limit,
  massMg,
  massOrNoneMg,
  newName,
  note,
  nothing,
  shortText,
  signedMassMg,
  signedMinor,
  slug,
  temperatureCentiC,
  version,
} from '../fields.ts';
import { judgedSchema } from './larder.ts';

export const verdicts = ['accepted', 'part', 'refused'] as const;
export const refusalReasons = [
  'warm',
  'smell',
  'look',
  'damaged',
  'no-papers',
  'past-date',
  'wrong-item',
  'too-small',
  'dead',
  'pests',
] as const;

const boxSchema = z.strictObject({ grossMg: massMg, tareMg: massOrNoneMg });
const answerSchema = z.strictObject({ pointId: slug, good: z.boolean() });

/** What only some goods have; each stands where it applies and nowhere else. */
export const detailsSchema = z.strictObject({
  supplierLot: shortText.exactOptional(),
  gtin: z
    .string()
    .regex(/^\d{14}$/)
    .exactOptional(),
  catchArea: shortText.exactOptional(),
  gear: shortText.exactOptional(),
  raised: z.enum(['wild', 'farmed']).describe('of game: how it lived').exactOptional(),
  method: z.enum(['caught', 'caught-in-freshwater', 'farmed']).exactOptional(),
  killPlace: shortText.exactOptional(),
  killedOn: day.exactOptional(),
  shotBy: shortText.exactOptional(),
  declaration: shortText.describe('number of the trained person’s declaration').exactOptional(),
  shotDamage: z.enum(['none', 'light', 'heavy']).exactOptional(),
  healthMark: shortText.exactOptional(),
  purified: shortText.describe('where and when it was purified').exactOptional(),
});

const lineWhat = {
  species: slug.nullable(),
  form: slug.nullable(),
  goods: slug.nullable(),
};

/** An animal in a form, or goods: never both, never half of one. */
const isOneThing = (
  b: { species: string | null; form: string | null; goods: string | null },
  context: z.RefinementCtx,
): void => {
  const wrong =
    b.goods !== null
      ? b.species !== null || b.form !== null
        ? 'goods'
        : undefined
      : b.species === null
        ? 'species'
        : b.form === null
          ? 'form'
          : undefined;
  if (wrong !== undefined)
    context.addIssue({ code: 'custom', path: [wrong], message: 'an animal in a form, or goods' });
};

export const deliveryLineSchema = z.strictObject({
  id,
  deliveryId: id,
  lotId: id.nullable(),
  code: z.string().nullable(),
  ...lineWhat,
  speciesName: z.string(),
  formName: z.string(),
  animals: z.int().min(1),
  supplierId: id,
  supplierName: z.string(),
  origin: z.string().nullable(),
  grossMg: massMg.nullable(),
  tareMg: massOrNoneMg,
  netMg: massOrNoneMg.describe('all that came, refused or not'),
  refusedMg: massOrNoneMg,
  invoiceMg: massMg.nullable(),
  paidMinor: amountMinor,
  /** Net minus invoice: below zero is short weight. And what that is worth at the invoice's price. */
  differenceMg: signedMassMg,
  differenceMinor: signedMinor,
  verdict: z.enum(verdicts),
  refusedReason: z.string().nullable(),
  inspection: z.array(answerSchema),
  came: z.enum(cameAs),
  details: detailsSchema,
  boxes: z.array(boxSchema),
  codes: z.array(z.string()),
  photographs: z.array(id),
  temperatureCentiC: temperatureCentiC.nullable(),
  judged: judgedSchema.nullable(),
  landedOn: day.nullable(),
  useBy: day.nullable(),
  note: z.string().nullable(),
  by: z.string(),
  at: instant,
  movementId: id.nullable(),
  reversed: z.boolean(),
});
export type DeliveryLine = z.output<typeof deliveryLineSchema>;

const claimSchema = z.strictObject({
  lines: z.array(
    z.strictObject({
      id,
      shortMg: massOrNoneMg,
      refusedMg: massOrNoneMg,
      claimMinor: amountMinor,
      overMg: massOrNoneMg,
    }),
  ),
  claimMinor: amountMinor,
});

export const deliverySchema = z.strictObject({
  id,
  supplierId: id,
  supplierName: z.string(),
  orderId: id.nullable(),
  invoice: z.string().nullable(),
  by: z.string(),
  at: instant,
  closedAt: instant.nullable(),
  lines: z.array(deliveryLineSchema),
  claim: claimSchema,
  /** The lines of its order that have not come, or not whole. */
  missing: z.array(z.strictObject({ position: z.int(), name: z.string(), massMg })),
});
export type Delivery = z.output<typeof deliverySchema>;

export const acceptBody = z
  .strictObject({
    deliveryId: id
      .nullable()
      .default(null)
      .describe('the delivery it is a line of; made with the first line. null: a delivery of its own'),
    supplierId: id,
    orderId: id.nullable().default(null),
    orderPosition: z.int().min(0).max(200).nullable().default(null),
    invoice: z.string().trim().min(1).max(60).nullable().default(null),
    species: slug.nullable(),
    form: slug.nullable(),
    goods: slug.nullable().default(null),
    confirmed: z
      .boolean()
      .default(false)
      .describe('what is asked first was read: wild game without a record is taken in on hold'),
    animals: z.int().min(1).max(5_000),
    origin: shortText.nullable(),
    grossMg: massMg.nullable().describe('null: refused unweighed'),
    tareMg: massOrNoneMg,
    invoiceMg: massMg.nullable().describe('null: refused unweighed, and no weight is read off the invoice'),
    paidMinor: amountMinor,
    temperatureCentiC: temperatureCentiC.nullable(),
    landedOn: day.nullable(),
    useBy: day.nullable().describe('null: the house’s usual life for this'),
    note: note.nullable(),
    verdict: z.enum(verdicts).default('accepted'),
    refusedMg: massOrNoneMg.default(0),
    refusedReason: z.enum(refusalReasons).nullable().default(null),
    inspection: z.array(answerSchema).max(30).default([]),
    came: z.enum(cameAs).default('fresh'),
    details: detailsSchema.default({}),
    boxes: z.array(boxSchema).max(200).default([]),
    codes: z.array(z.string().min(1).max(400)).max(200).default([]),
    placeId: slug.nullable().default(null),
  })
  .refine((b) => b.grossMg === null || b.tareMg < b.grossMg, {
    path: ['tareMg'],
    error: 'the box cannot weigh more than box and goods',
  })
  .superRefine(isOneThing)
  .refine((b) => b.grossMg !== null || b.verdict === 'refused', {
    path: ['grossMg'],
    error: 'only what is refused whole may go unweighed',
  })
  .refine((b) => b.grossMg === null || b.invoiceMg !== null, {
    path: ['invoiceMg'],
    error: 'what is weighed is held against the weight on the invoice',
  })
  .refine((b) => (b.verdict === 'part') === b.refusedMg > 0, {
    path: ['refusedMg'],
    error: 'how much is refused when a part is, and only then',
  })
  .refine((b) => (b.verdict === 'accepted') === (b.refusedReason === null), {
    path: ['refusedReason'],
    error: 'a reason when something is refused, and only then',
  })
  .refine((b) => b.grossMg === null || b.refusedMg < b.grossMg - b.tareMg, {
    path: ['refusedMg'],
    error: 'less than came; to refuse all of it, refuse the line',
  })
  .refine(
    (b) =>
      b.boxes.length === 0 ||
      (b.grossMg === b.boxes.reduce((s, x) => s + x.grossMg, 0) &&
        b.tareMg === b.boxes.reduce((s, x) => s + x.tareMg, 0)),
    { path: ['boxes'], error: 'the boxes do not add up to gross and tare' },
  );

const orderLine = z
  .strictObject({
    ...lineWhat,
    count: z.int().min(1).max(5_000).nullable(),
    massMg,
    minorPerKg: amountMinor.nullable(),
  })
  .superRefine(isOneThing);

export const orderSchema = z.strictObject({
  id,
  supplierId: id,
  supplierName: z.string(),
  dueOn: day,
  note: z.string().nullable(),
  state: z.enum(['open', 'done', 'called-off']),
  by: z.string(),
  at: instant,
  lines: z.array(
    z.strictObject({
      position: z.int(),
      ...lineWhat,
      name: z.string(),
      count: z.int().nullable(),
      massMg,
      minorPerKg: amountMinor.nullable(),
      cameMg: massOrNoneMg.describe('accepted so far'),
    }),
  ),
});
export type Order = z.output<typeof orderSchema>;

export const priceListSchema = z.strictObject({
  id,
  supplierId: id,
  supplierName: z.string(),
  file: z.string(),
  validFrom: day,
  rows: z.int(),
  by: z.string(),
  at: instant,
  state: z.enum(['coming', 'stands', 'taken-back']),
});
export type PriceList = z.output<typeof priceListSchema>;

/** Text that stands in a list of prices: never something a spreadsheet would run. */
const priceItem = z
  .string()
  .trim()
  .min(1)
  .max(120)
  .regex(/^[^=+\-@]/, 'a cell that a spreadsheet would run');

const weekdays = z.array(z.int().min(1).max(7)).max(7);
const clock = z.string().regex(/^(?:[01]\d|2[0-3]):[0-5]\d$/);

/** What is agreed with a supplier. Days of the week from Monday, 1; none: any day. */
export const supplierTermsSchema = z.strictObject({
  contact: shortText.nullable(),
  phone: z.string().trim().min(3).max(40).nullable(),
  email: z.email().max(120).nullable(),
  account: shortText.nullable().describe('our number with them'),
  orderDays: weekdays,
  cutOff: clock.nullable().describe('until when an order can be given on such a day, by the house’s clock'),
  deliveryDays: weekdays,
  leadDays: z.int().min(0).max(14).describe('days at least from order to delivery'),
  minimumMinor: amountMinor.nullable().describe('what an order must come to'),
  carriageMinor: amountMinor.nullable().describe('what bringing it costs'),
  carriageFreeMinor: amountMinor.nullable().describe('from what an order comes to it costs nothing to bring'),
  items: z
    .array(
      z.strictObject({
        species: slug.nullable(),
        form: slug.nullable(),
        goods: slug.nullable(),
        theirCode: z.string().trim().min(1).max(40).nullable(),
        theirName: shortText.nullable(),
        packMg: massMg.nullable().describe('what they pack it by'),
      }),
    )
    .max(300)
    .describe('what is bought of them, and what they call it'),
  note: note.nullable(),
});
export type SupplierTerms = z.output<typeof supplierTermsSchema>;

/** Of a supplier of whom nobody has said anything. */
export const noTerms: SupplierTerms = {
  contact: null,
  phone: null,
  email: null,
  account: null,
  orderDays: [],
  cutOff: null,
  deliveryDays: [],
  leadDays: 1,
  minimumMinor: null,
  carriageMinor: null,
  carriageFreeMinor: null,
  items: [],
  note: null,
};

export const supplierSchema = z.strictObject({
  id,
  name: shortText,
  version,
  retired: z.boolean().describe('bought from no more'),
  terms: supplierTermsSchema,
});

export const receive = {
  suppliers: endpoint({
    id: 'receive.suppliers',
    method: 'get',
    path: '/suppliers',
    command: false,
    may: 'everyone',
    summary: 'Who delivers to this house',
    answer: z.strictObject({ suppliers: z.array(supplierSchema) }),
  }),
  addSupplier: endpoint({
    id: 'receive.addSupplier',
    method: 'post',
    path: '/suppliers',
    command: true,
    may: 'chefs',
    summary: 'A new supplier',
    body: z.strictObject({ name: newName }),
    answer: z.strictObject({ id, name: shortText }),
  }),
  saveSupplier: endpoint({
    id: 'receive.saveSupplier',
    method: 'post',
    path: '/suppliers/:supplierId',
    command: true,
    may: 'chefs',
    summary: 'Another name or other terms of a supplier; bought from no more, or again',
    params: z.strictObject({ supplierId: id }),
    body: z.strictObject({ version, name: newName, retired: z.boolean(), terms: supplierTermsSchema }),
    answer: supplierSchema,
  }),
  list: endpoint({
    id: 'receive.list',
    method: 'get',
    path: '/deliveries',
    command: false,
    may: 'everyone',
    summary: 'Deliveries with their lines, newest first',
    query: z.strictObject({ cursor, limit }),
    answer: z.strictObject({ deliveries: z.array(deliverySchema), next: z.string().nullable() }),
  }),
  read: endpoint({
    id: 'receive.read',
    method: 'get',
    path: '/deliveries/:deliveryId',
    command: false,
    may: 'everyone',
    summary: 'One delivery with its lines and what is to be claimed for it',
    params: z.strictObject({ deliveryId: id }),
    answer: deliverySchema,
  }),
  accept: endpoint({
    id: 'receive.accept',
    method: 'post',
    path: '/deliveries',
    command: 'may-wait',
    may: 'bench',
    summary: 'One line of a delivery, accepted, accepted in part or refused: what is accepted becomes a lot',
    body: acceptBody,
    answer: deliveryLineSchema,
  }),
  close: endpoint({
    id: 'receive.close',
    method: 'post',
    path: '/deliveries/:deliveryId/close',
    command: true,
    may: 'bench',
    summary: 'Nothing more comes with this delivery',
    params: z.strictObject({ deliveryId: id }),
    answer: deliverySchema,
  }),
  photographs: endpoint({
    id: 'receive.photographs',
    method: 'get',
    path: '/delivery-lines/:lineId/photographs',
    command: false,
    may: 'everyone',
    summary: 'The photographs of a line',
    params: z.strictObject({ lineId: id }),
    answer: z.strictObject({
      photographs: z.array(z.strictObject({ id, width: z.int(), height: z.int(), by: z.string(), at: instant })),
    }),
  }),
  photograph: endpoint({
    id: 'receive.photograph',
    method: 'post',
    path: '/delivery-lines/:lineId/photographs',
    command: true,
    may: 'bench',
    summary: 'Add a photograph to a line: JPEG, PNG or WebP, up to 3 MB',
    params: z.strictObject({ lineId: id }),
    body: z.strictObject({ base64: z.base64().min(16).max(4_400_000) }),
    answer: z.strictObject({ id }),
    takesBytes: 4_500_000,
  }),
  showPhotograph: endpoint({
    id: 'receive.showPhotograph',
    method: 'get',
    path: '/photographs/:photographId',
    command: false,
    may: 'everyone',
    summary: 'A photograph',
    file: 'image/*',
    params: z.strictObject({ photographId: id }),
    answer: nothing,
  }),
  claimPdf: endpoint({
    id: 'receive.claimPdf',
    method: 'get',
    path: '/deliveries/:deliveryId/claim.pdf',
    command: false,
    may: 'everyone',
    summary: 'The claim to the supplier as a PDF',
    file: 'application/pdf',
    params: z.strictObject({ deliveryId: id }),
    answer: nothing,
  }),
  orders: endpoint({
    id: 'receive.orders',
    method: 'get',
    path: '/orders',
    command: false,
    may: 'everyone',
    summary: 'Orders that are expected, the earliest first',
    answer: z.strictObject({ orders: z.array(orderSchema) }),
  }),
  order: endpoint({
    id: 'receive.order',
    method: 'post',
    path: '/orders',
    command: true,
    may: 'chefs',
    summary: 'Write down what was ordered',
    body: z.strictObject({
      supplierId: id,
      dueOn: day,
      note: note.nullable(),
      lines: z.array(orderLine).min(1).max(100),
    }),
    answer: orderSchema,
  }),
  callOff: endpoint({
    id: 'receive.callOff',
    method: 'post',
    path: '/orders/:orderId/call-off',
    command: true,
    may: 'chefs',
    summary: 'An order that will not come',
    params: z.strictObject({ orderId: id }),
    answer: nothing,
  }),
  priceLists: endpoint({
    id: 'receive.priceLists',
    method: 'get',
    path: '/price-lists',
    command: false,
    may: 'everyone',
    summary: 'Price lists that were read in, newest first',
    answer: z.strictObject({ lists: z.array(priceListSchema) }),
  }),
  sendPrices: endpoint({
    id: 'receive.sendPrices',
    method: 'post',
    path: '/price-lists',
    command: true,
    may: 'chefs',
    summary: 'Rows of a price list, in parts; nothing of it counts before the last part has come',
    body: z.strictObject({
      listId: id,
      supplierId: id,
      file: shortText,
      validFrom: day,
      last: z.boolean(),
      rows: z
        .array(
          z.strictObject({
            line: z.int().min(1).max(1_000_000),
            item: priceItem,
            minorPerKg: amountMinor.min(1),
            unit: z.string().trim().min(1).max(20),
          }),
        )
        .min(1)
        .max(1_000),
    }),
    answer: z.strictObject({ listId: id, rows: z.int() }),
    takesBytes: 400_000,
  }),
  undoPrices: endpoint({
    id: 'receive.undoPrices',
    method: 'post',
    path: '/price-lists/:listId/undo',
    command: true,
    may: 'chefs',
    summary: 'Take a price list back: what counted before counts again',
    params: z.strictObject({ listId: id }),
    answer: nothing,
  }),
  prices: endpoint({
    id: 'receive.prices',
    method: 'get',
    path: '/prices',
    command: false,
    may: 'everyone',
    summary: 'The price of every item that counts today',
    query: z.strictObject({ search: z.string().max(80).optional(), supplierId: id.optional(), limit }),
    answer: z.strictObject({
      prices: z.array(
        z.strictObject({
          item: z.string(),
          supplierId: id,
          supplierName: z.string(),
          minorPerKg: amountMinor,
          unit: z.string(),
          validFrom: day,
          beforeMinor: amountMinor.nullable(),
        }),
      ),
      total: z.int(),
    }),
  }),
  priceHistory: endpoint({
    id: 'receive.priceHistory',
    method: 'get',
    path: '/prices/history',
    command: false,
    may: 'everyone',
    summary: 'What an item cost at a supplier, oldest first',
    query: z.strictObject({ item: z.string().min(1).max(120), supplierId: id }),
    answer: z.strictObject({ points: z.array(z.strictObject({ day, minorPerKg: amountMinor })) }),
  }),
  probe: endpoint({
    id: 'receive.probe',
    method: 'get',
    path: '/probe',
    command: false,
    may: 'everyone',
    summary: 'What the probe thermometer shows',
    answer: z.strictObject({
      state: z.enum(['steady', 'moving', 'away']),
      centiC: temperatureCentiC.nullable(),
      errorCentiC: z.int(),
    }),
  }),
} as const;
