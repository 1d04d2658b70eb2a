import { clocks, dateOrders, decimalSigns, massSystems, temperatureScales, volumeSystems } from '@zabrik/core';
import { z } from 'zod';

/** What a house reads and writes in. */
export const unitsSchema = z
  .strictObject({
    mass: z.enum(massSystems),
    temperature: z.enum(temperatureScales),
    volume: z.enum(volumeSystems),
    clock: z.enum(clocks),
    dates: z.enum(dateOrders),
    decimal: z.enum(decimalSigns),
  })
  .describe('how figures are shown and read; what is kept and sent is always in the units each field names');
