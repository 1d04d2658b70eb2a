import { hash, verify } from '@node-rs/argon2';

/** argon2id, 19 MiB, two passes: the OWASP minimum. A PIN is short: the lock-out, not the hash, keeps guessers out. */
const OPTIONS = { memoryCost: 19_456, timeCost: 2, parallelism: 1 } as const;

export const hashSecret = (secret: string): Promise<string> => hash(secret, OPTIONS);
export const secretFits = (stored: string, secret: string): Promise<boolean> => verify(stored, secret);
