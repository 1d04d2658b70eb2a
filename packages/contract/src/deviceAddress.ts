import { z } from 'zod';

/** The networks that are a kitchen's own: RFC 1918, loopback, and what a device takes that was given no address (RFC 3927). */
const isNear = (host: string): boolean => {
  const octets = /^(\d{1,3})\.(\d{1,3})\.(\d{1,3})\.(\d{1,3})$/.exec(host)?.slice(1).map(Number);
  if (octets !== undefined) {
    const [a = 0, b = 0] = octets;
    if (octets.some((n) => n > 255)) return false;
    return (
      a === 10 || a === 127 || (a === 172 && b >= 16 && b <= 31) || (a === 192 && b === 168) || (a === 169 && b === 254)
    );
  }
  // a name of the house's own network has no dots, or ends as such names do; one of figures alone is an address in disguise
  if (!/^[a-z0-9](?:[a-z0-9.-]*[a-z0-9])?$/i.test(host) || !/[a-z]/i.test(host) || /^0x/i.test(host)) return false;
  return !host.includes('.') || /\.(local|lan|home\.arpa|internal)$/i.test(host);
};

/** host:port of a device on the kitchen's own network. The server asks there, so nothing outside of it may be named. */
export const deviceAddress = z
  .string()
  .max(120)
  .regex(/^[\w.-]+:\d{1,5}$/, 'an address and a port, such as 192.168.1.40:7001')
  .refine((text) => {
    const [host = '', port = ''] = text.split(':');
    return Number(port) >= 1 && Number(port) <= 65_535 && isNear(host);
  }, 'an address in the kitchen’s own network');
