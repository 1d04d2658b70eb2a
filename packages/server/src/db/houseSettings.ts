/** What a house has chosen for itself. */
import type { Equipment, HouseMould, OwnGoods, Role } from '@zabrik/contract';
import type { Burner, CostingSchool, NamedScale, Place, TaxSaid, Units, VesselShape, Worth } from '@zabrik/core';

export interface HouseScale extends NamedScale {
  readonly name: string;
  /** Where it answers, host:port; left out, as the start command says, or it is not connected. */
  readonly address?: string;
}

export interface HouseSettings {
  readonly school: CostingSchool;
  /** The first is the one at the bench. */
  readonly scales: readonly [HouseScale, ...HouseScale[]];
  /** By category, or by category and species (`worthKey`). */
  readonly creditMinorPerKg: Worth;
  /** The day each of them was last said. */
  readonly creditSaid?: Readonly<Record<string, string>>;
  readonly pantryMinorPerKg: Readonly<Record<string, number>>;
  /** From which line of a supplier's price lists an ingredient's price is read; left out, from none. */
  readonly pantryFrom?: Readonly<Record<string, { readonly supplierId: string; readonly item: string }>>;
  /** What an hour at the bench costs; left out until the house says so. */
  readonly labourMinorPerHour?: number;
  readonly vessels: readonly {
    readonly id: string;
    readonly name: string;
    readonly litres: number;
    readonly kind?: 'pot' | 'pan';
    readonly shape?: VesselShape;
  }[];
  readonly machines?: readonly {
    readonly id: string;
    readonly name: string;
    readonly kind: 'blender';
    readonly watts: number;
  }[];
  readonly equipment?: readonly Equipment[];
  readonly moulds?: readonly HouseMould[];
  readonly goods?: readonly OwnGoods[];
  readonly burners?: readonly (Burner & { readonly id: string; readonly name: string })[];
  /** What a kilowatt-hour costs; left out, energy is not counted. */
  readonly energyMinorPerKwh?: number;
  /** Where things stand; left out, the usual five. */
  readonly places?: readonly Place[];
  /** What the scales may differ from an invoice before it is a claim; left out, one part in a hundred and at least 10 g. */
  readonly tolerance?: { readonly share: number; readonly massMg: number };
  /** Left out, the usual ones. */
  readonly units?: Units;
  /** Left out, nothing is said of one. */
  readonly tax?: TaxSaid;
  /** Left out, the usual ones. */
  readonly idleMinutes?: Readonly<Record<Role, number>>;
  /** Left out, there is none. */
  readonly practiceScale?: boolean;
  /** Where the probe thermometer and the label printer answer, host:port. */
  readonly probeAt?: string;
  readonly printerAt?: string;
  /** Left out, they do. */
  readonly viewersSeeCosts?: boolean;
}
