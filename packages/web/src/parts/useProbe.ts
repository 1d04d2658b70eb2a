import { useQuery } from '@tanstack/react-query';
import { call } from '../app/api.ts';
import { api } from '../app/endpoints.ts';

/** What the probe shows, asked twice a second while someone looks at it. */
export const useProbe = (looking: boolean) =>
  useQuery({
    queryKey: ['probe'],
    queryFn: () => call(api.receive.probe, {}),
    enabled: looking,
    refetchInterval: looking ? 500 : false,
    gcTime: 0,
    staleTime: 0,
  });
