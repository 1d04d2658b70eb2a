/** Every table of the database. */

import type { Table } from '../table.ts';
import { ApiTokenTable } from './apiToken.ts';
import { BackupTable } from './backup.ts';
import { BatchTable } from './batch.ts';
import { BatchEventTable } from './batchEvent.ts';
import { BatchInputTable } from './batchInput.ts';
import { BenchEventTable } from './benchEvent.ts';
import { BreakdownTable } from './breakdown.ts';
import { BreakdownInputTable } from './breakdownInput.ts';
import { BreakdownPieceTable } from './breakdownPiece.ts';
import { CautionSeenTable } from './cautionSeen.ts';
import { CommandTable } from './command.ts';
import { CoolingTable } from './cooling.ts';
import { CoolingReadingTable } from './coolingReading.ts';
import { CorrectedTable } from './corrected.ts';
import { CutPlanTable } from './cutPlan.ts';
import { CuttingTable } from './cutting.ts';
import { CuttingEventTable } from './cuttingEvent.ts';
import { CuttingInputTable } from './cuttingInput.ts';
import { DeliveryTable } from './delivery.ts';
import { DeliveryLineTable } from './deliveryLine.ts';
import { DeviceTable } from './device.ts';
import { HouseTable } from './house.ts';
import { HouseLimitsTable } from './houseLimits.ts';
import { HousePlateTable } from './housePlate.ts';
import { HouseRecipeTable } from './houseRecipe.ts';
import { HouseSpeciesTable } from './houseSpecies.ts';
import { JobTable } from './job.ts';
import { JobPartTable } from './jobPart.ts';
import { LotTable } from './lot.ts';
import { LotBalanceTable } from './lotBalance.ts';
import { LotEventTable } from './lotEvent.ts';
import { LotGenealogyTable } from './lotGenealogy.ts';
import { MigrationTable } from './migration.ts';
import { MovementTable } from './movement.ts';
import { MovementKeyTable } from './movementKey.ts';
import { PersonTable } from './person.ts';
import { PhotographTable } from './photograph.ts';
import { PlanVersionTable } from './planVersion.ts';
import { PostingTable } from './posting.ts';
import { PriceTable } from './price.ts';
import { PriceListTable } from './priceList.ts';
import { RateLimitTable } from './rateLimit.ts';
import { RecipeVersionTable } from './recipeVersion.ts';
import { ReservationTable } from './reservation.ts';
import { RestoredTable } from './restored.ts';
import { ScaleCheckTable } from './scaleCheck.ts';
import { SessionTable } from './session.ts';
import { SettingChangeTable } from './settingChange.ts';
import { SignInTryTable } from './signInTry.ts';
import { StockTakeTable } from './stockTake.ts';
import { SupplierTable } from './supplier.ts';
import { SupplyOrderTable } from './supplyOrder.ts';
import { SupplyOrderLineTable } from './supplyOrderLine.ts';
import { WebhookTable } from './webhook.ts';
import { WebhookCallTable } from './webhookCall.ts';
import { WeighingTable } from './weighing.ts';

export const allTables: readonly Table[] = [
  ApiTokenTable,
  BackupTable,
  BatchTable,
  BatchEventTable,
  BatchInputTable,
  BenchEventTable,
  BreakdownTable,
  BreakdownInputTable,
  BreakdownPieceTable,
  CautionSeenTable,
  CommandTable,
  CoolingTable,
  CoolingReadingTable,
  CorrectedTable,
  CutPlanTable,
  CuttingTable,
  CuttingEventTable,
  CuttingInputTable,
  DeliveryTable,
  DeliveryLineTable,
  DeviceTable,
  HouseTable,
  HouseLimitsTable,
  HousePlateTable,
  HouseRecipeTable,
  HouseSpeciesTable,
  JobTable,
  JobPartTable,
  LotTable,
  LotBalanceTable,
  LotEventTable,
  LotGenealogyTable,
  MigrationTable,
  MovementTable,
  MovementKeyTable,
  PersonTable,
  PhotographTable,
  PlanVersionTable,
  PostingTable,
  PriceTable,
  PriceListTable,
  RateLimitTable,
  RecipeVersionTable,
  ReservationTable,
  RestoredTable,
  ScaleCheckTable,
  SessionTable,
  SettingChangeTable,
  SignInTryTable,
  StockTakeTable,
  SupplierTable,
  SupplyOrderTable,
  SupplyOrderLineTable,
  WebhookTable,
  WebhookCallTable,
  WeighingTable,
];
