import type { Answer, EndpointId } from '@zabrik/contract';
import type { api } from './endpoints.ts';

/** What is told of the day on the bar. */
export type Flow = Answer<typeof api.house.flow>;

/** A station's place on the bar: where it leads, its name, and the one figure that matters there now, in words. */
export interface OnTheBar {
  readonly to: string;
  readonly name: string;
  readonly figure: (flow: Flow) => string;
  /** It stands there for those alone who may do this. */
  readonly may?: EndpointId;
}
