import { Viewer } from '../records/viewer.server';
import { doing } from '../workers/task';
import { judged } from './judged.server';
import { judge } from './reckonTasks';

export const judgeNow = doing(judge, (piece) => judged(Viewer.shop, piece));
