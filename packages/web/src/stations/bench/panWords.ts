import type { ScaleReading } from '@zabrik/contract';

/** Why what is on the pan cannot be taken as a weight; undefined when it can. */
export function panRefuses(reading: ScaleReading, wasTaken: boolean): string | undefined {
  switch (reading.state) {
    case 'away':
      return 'The scale does not answer. Type the weight.';
    case 'moving':
      return 'Still moving. Let the pan rest.';
    case 'over':
      return 'Too heavy for this scale. Take it to the floor scale, or weigh it in two.';
    case 'under':
      return 'Below zero. Clear the pan and set zero.';
    case 'steady':
      if (reading.netMg <= 0) return 'Nothing on the pan.';
      return wasTaken ? 'This weight is already taken. Put the next piece on.' : undefined;
  }
}
