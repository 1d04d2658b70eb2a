import { expose } from 'comlink';
import { countAnimals, pairRolls, planPiece } from './planner.ts';

expose({ planPiece, countAnimals, pairRolls });
