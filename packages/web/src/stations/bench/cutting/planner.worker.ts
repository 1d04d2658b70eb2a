import { expose } from 'comlink';
import { planPiece } from './planner.ts';

expose(planPiece);
