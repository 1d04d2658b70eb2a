import type { Endpoint } from '@zabrik/contract';
import type { Response } from 'express';

/** Headers of a file to keep or to look at. The name is plain ASCII: browsers disagree about anything else. */
export function fileHeaders(response: Response, type: string, name: string, inline: boolean): void {
  response.setHeader('content-type', type.startsWith('text/') ? `${type}; charset=utf-8` : type);
  response.setHeader(
    'content-disposition',
    `${inline ? 'inline' : 'attachment'}; filename="${name.replace(/[^\w.-]/g, '-')}"`,
  );
  response.setHeader('x-content-type-options', 'nosniff');
}

export const XLSX = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

export interface GivenFile {
  readonly type:
    | NonNullable<Endpoint['file']>
    | 'application/zip'
    | typeof XLSX
    | 'image/jpeg'
    | 'image/png'
    | 'image/webp';
  readonly name: string;
  readonly inline?: boolean;
  /** All of it, or parts as they are made. */
  readonly body: Uint8Array | string | AsyncIterable<string | Uint8Array>;
}
