import { Viewer } from '../../records/viewer.server';
import { doing } from '../../workers/task';
import { verdictOnSurvey } from './surveyVerdict.server';
import { surveyVerdictTask } from './reckonTasks';

export const verdictNow = doing(surveyVerdictTask, (piece) => verdictOnSurvey(Viewer.shop, piece));
