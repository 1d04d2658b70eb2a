import { hostname, networkInterfaces } from 'node:os';

/** The IPv4 addresses under which other machines of the network reach this one, the likeliest first. */
export const lanAddresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap((found) => found ?? [])
    .filter((a) => a.family === 'IPv4' && !a.internal && !a.address.startsWith('169.254.'))
    .map((a) => a.address);

/** Names the certificate is made for. */
export const lanNames = (): string[] => {
  const name = hostname().toLowerCase();
  return [...new Set(['localhost', name, ...(name.includes('.') ? [] : [`${name}.local`])])];
};
