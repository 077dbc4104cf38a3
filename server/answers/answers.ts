import type { Contract } from '../../core/contract/contract';
import type { Answers } from '../edge/answer';
import { documentAnswers } from './documents';
import { draftAnswers } from './drafts';
import { fileAnswers } from './files';
import { ownAnswers } from './own';
import { peopleAnswers } from './people';
import { placeAnswers } from './places';
import { seriesAnswers } from './series';
import { productionAnswers } from './productions';
import { recordAnswers } from './records';
import { signInAnswers } from './sign-in';
import { systemAnswers } from './system';
import { templateAnswers } from './templates';

/** The function behind each endpoint of the contract. */
export const answers: Answers<Contract> = {
  ...systemAnswers,
  ...signInAnswers,
  ...ownAnswers,
  ...peopleAnswers,
  ...recordAnswers,
  ...productionAnswers,
  ...documentAnswers,
  ...templateAnswers,
  ...draftAnswers,
  ...fileAnswers,
  ...placeAnswers,
  ...seriesAnswers,
};
