/** What a house's authority may vouch for: the names of its own machine and the addresses of private networks, and no site of the world. */
import forge from 'node-forge';

const { asn1 } = forge;
const OID = '2.5.29.30';

/** Networks that no one outside can be reached by: RFC 1918, RFC 3927, loopback; RFC 4193 and RFC 4291 for IPv6. Address and mask, in bytes. */
const privateNetworks: readonly (readonly number[])[] = [
  [10, 0, 0, 0, 255, 0, 0, 0],
  [172, 16, 0, 0, 255, 240, 0, 0],
  [192, 168, 0, 0, 255, 255, 0, 0],
  [169, 254, 0, 0, 255, 255, 0, 0],
  [127, 0, 0, 0, 255, 0, 0, 0],
  [0xfc, ...Array<number>(15).fill(0), 0xfe, ...Array<number>(15).fill(0)],
  [0xfe, 0x80, ...Array<number>(14).fill(0), 0xff, 0xc0, ...Array<number>(14).fill(0)],
];

const within = (address: readonly number[], network: readonly number[]): boolean =>
  network.length === 2 * address.length &&
  address.every((byte, i) => (byte & (network[address.length + i] ?? 0)) === network[i]);

/**
 * The extension, critical: a device that cannot read it trusts nothing of this authority. `names` are DNS names; of `addresses` (IPv4) those
 * outside the private networks are named one by one. Source: RFC 5280, section 4.2.1.10.
 */
export function nameConstraints(names: readonly string[], addresses: readonly string[]) {
  const single = addresses
    .map((a) => a.split('.').map(Number))
    .filter((bytes) => !privateNetworks.some((network) => within(bytes, network)))
    .map((bytes) => [...bytes, 255, 255, 255, 255]);
  // a context tag counts as a type here, for which the library's own list of types has no name
  const tagged = (tag: number, constructed: boolean, value: string | forge.asn1.Asn1[]) =>
    asn1.create(asn1.Class.CONTEXT_SPECIFIC, tag as forge.asn1.Type, constructed, value);
  const subtree = (type: number, bytes: string) =>
    asn1.create(asn1.Class.UNIVERSAL, asn1.Type.SEQUENCE, true, [tagged(type, false, bytes)]);
  const permitted = [
    ...names.map((name) => subtree(2, name)),
    ...[...privateNetworks, ...single].map((bytes) => subtree(7, String.fromCharCode(...bytes))),
  ];
  const value = asn1.create(asn1.Class.UNIVERSAL, asn1.Type.SEQUENCE, true, [tagged(0, true, permitted)]);
  return { id: OID, critical: true, value: asn1.toDer(value).getBytes() };
}

/** Whether a certificate has just these constraints. */
export const hasConstraints = (cert: forge.pki.Certificate, wanted: { readonly value: string }): boolean =>
  (cert.extensions as { id?: string; value?: string }[]).find((e) => e.id === OID)?.value === wanted.value;
