import { dehydrate, QueryClient } from '@tanstack/react-query';
import { describe, expect, it, vi } from 'vitest';
import { serializeReads } from './serializeReads.ts';

const clientOf = (queries: QueryClient) => ({ buster: '4', timestamp: 5, clientState: dehydrate(queries) });

describe('what was read, written down', () => {
  it('is what JSON makes of the whole, and a read that did not change is not written again', () => {
    const queries = new QueryClient();
    const toJSON = vi.fn(() => 'catalogue');
    queries.setQueryData(['catalogue'], { toJSON });
    queries.setQueryData(['lots'], [{ name: 'Hake "frame"' }]);
    const serialize = serializeReads();
    const whole = clientOf(queries);
    expect(JSON.parse(serialize(whole))).toEqual(JSON.parse(JSON.stringify(whole)));
    toJSON.mockClear();
    queries.setQueryData(['lots'], []);
    expect(JSON.parse(serialize(clientOf(queries)))).toMatchObject({ buster: '4', timestamp: 5 });
    expect(toJSON).not.toHaveBeenCalled();
    queries.removeQueries({ queryKey: ['catalogue'] });
    const last = JSON.parse(serialize(clientOf(queries))) as {
      clientState: { queries: { state: { data: unknown } }[] };
    };
    expect(last.clientState.queries.map((q) => q.state.data)).toEqual([[]]);
  });
});
