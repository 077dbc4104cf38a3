import type { Contract } from '../../core/contract/contract';
import type { Answers } from '../edge/answer';
import { dealAnswers } from './deals';
import { documentAnswers } from './documents';
import { proofAnswers } from './proofs';
import { systemAnswers } from './system';
import { templateAnswers } from './templates';

/** The function behind each endpoint of the contract. */
export const answers: Answers<Contract> = {
  ...systemAnswers,
  ...dealAnswers,
  ...proofAnswers,
  ...documentAnswers,
  ...templateAnswers,
};
