import { expose } from 'comlink';
import { countAnimals, planPiece } from './planner.ts';

expose({ planPiece, countAnimals });
