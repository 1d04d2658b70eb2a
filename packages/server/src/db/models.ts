/** The tables a station writes row by row. Reads that join go through each station's queries.ts. */

import type { Role, Way } from '@zabrik/contract';
import type { Burner, CostingSchool, Destination, NamedScale, Place, VesselShape } from '@zabrik/core';
import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type ModelAttributes,
  type ModelStatic,
  type Sequelize,
} from 'sequelize';

export interface HouseScale extends NamedScale {
  readonly name: string;
}

export interface HouseSettings {
  readonly school: CostingSchool;
  /** The first is the one at the bench. */
  readonly scales: readonly [HouseScale, ...HouseScale[]];
  readonly creditMinorPerKg: Readonly<Record<string, number>>;
  readonly pantryMinorPerKg: Readonly<Record<string, number>>;
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
  readonly burners?: readonly (Burner & { readonly id: string; readonly name: string })[];
  /** What a kilowatt-hour costs; left out, energy is not counted. */
  readonly energyMinorPerKwh?: number;
  /** Where things stand; left out, the usual five. */
  readonly places?: readonly Place[];
  /** What the scales may differ from an invoice before it is a claim; left out, one part in a hundred and at least 10 g. */
  readonly tolerance?: { readonly share: number; readonly massMg: number };
  /** Left out, they do. */
  readonly viewersSeeCosts?: boolean;
}

export class HouseRow extends Model<InferAttributes<HouseRow>, InferCreationAttributes<HouseRow>> {
  declare id: string;
  declare slug: string;
  declare name: string;
  declare currency: string;
  declare timezone: string;
  declare settings: HouseSettings;
  declare createdAt: CreationOptional<Date>;
}

export class PersonRow extends Model<InferAttributes<PersonRow>, InferCreationAttributes<PersonRow>> {
  declare id: string;
  declare houseId: string;
  declare name: string;
  declare role: Role;
  declare pinHash: string;
  declare passwordHash: string | null;
}

export class SupplierRow extends Model<InferAttributes<SupplierRow>, InferCreationAttributes<SupplierRow>> {
  declare id: string;
  declare houseId: string;
  declare name: string;
}

export class BreakdownRow extends Model<InferAttributes<BreakdownRow>, InferCreationAttributes<BreakdownRow>> {
  declare id: string;
  declare houseId: string;
  declare lotId: string;
  /** The plan it was begun with, as worked: `plan_version`. */
  declare planVersion: string;
  /** Pieces of the stage, each with the trays it must not go to and why: what a weighing is checked against, without the whole plan. */
  declare refusals: Readonly<Record<string, Readonly<Record<string, string>>>>;
  declare planId: string;
  declare stageId: string;
  declare species: string;
  declare form: string;
  declare animals: number;
  declare startMg: number;
  declare startMinor: number;
  declare state: 'open' | 'closed' | 'cancelled';
  declare supplierId: string | null;
  declare personId: string;
  declare startedAt: Date;
  declare closedAt: CreationOptional<Date | null>;
  declare movementId: CreationOptional<string | null>;
  declare bookedSchool: CreationOptional<CostingSchool | null>;
  declare note: CreationOptional<string | null>;
  declare takenBack: CreationOptional<number>;
  /** The breakdown this chain of stages began with; itself for a first stage. */
  declare rootId: string;
  declare startShare: number;
  declare way: Way;
  declare holderId: string;
}

export class BreakdownPieceRow extends Model<
  InferAttributes<BreakdownPieceRow>,
  InferCreationAttributes<BreakdownPieceRow>
> {
  declare breakdownId: string;
  declare houseId: string;
  declare pieceId: string;
  declare destination: Destination;
  declare massMg: number;
  declare units: number;
  declare lotId: string | null;
}

const text = DataTypes.TEXT;
const uuid = DataTypes.UUID;
const mass = DataTypes.BIGINT;
const whole = DataTypes.INTEGER;
const when = DataTypes.DATE;

/** Binds the models to one connection. Several connections may live in one process (tests): the last one bound wins per class. */
export function defineModels(sequelize: Sequelize): void {
  const define = <M extends Model>(model: ModelStatic<M>, tableName: string, attributes: ModelAttributes<M>): void => {
    model.init(attributes as never, { sequelize, tableName });
  };
  define(HouseRow, 'house', {
    id: { type: uuid, primaryKey: true },
    slug: text,
    name: text,
    currency: text,
    timezone: text,
    settings: DataTypes.JSONB,
    createdAt: when,
  });
  define(PersonRow, 'person', {
    id: { type: uuid, primaryKey: true },
    houseId: uuid,
    name: text,
    role: text,
    pinHash: text,
    passwordHash: text,
  });
  define(SupplierRow, 'supplier', { id: { type: uuid, primaryKey: true }, houseId: uuid, name: text });
  define(BreakdownRow, 'breakdown', {
    id: { type: uuid, primaryKey: true },
    houseId: uuid,
    lotId: uuid,
    planVersion: text,
    refusals: DataTypes.JSONB,
    planId: text,
    stageId: text,
    species: text,
    form: text,
    animals: whole,
    startMg: mass,
    startMinor: mass,
    state: text,
    supplierId: uuid,
    personId: uuid,
    startedAt: when,
    closedAt: when,
    movementId: uuid,
    bookedSchool: text,
    note: text,
    takenBack: { type: whole, defaultValue: 0 },
    rootId: uuid,
    startShare: DataTypes.DOUBLE,
    way: text,
    holderId: uuid,
  });
  define(BreakdownPieceRow, 'breakdown_piece', {
    breakdownId: { type: uuid, primaryKey: true },
    houseId: uuid,
    pieceId: { type: text, primaryKey: true },
    destination: { type: text, primaryKey: true },
    massMg: mass,
    units: whole,
    lotId: uuid,
  });
}
