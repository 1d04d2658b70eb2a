import { z } from 'zod';

/** An address that a program is called at: http or https, with no name and password in it. */
export const webAddress = z
  .url({ protocol: /^https?$/, error: 'an address, such as https://books.example/zabrik' })
  .max(500)
  .regex(/^https?:\/\/[^/?#@]+(?:[/?#]|$)/, 'an address with no name and password in it');
