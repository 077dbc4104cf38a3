import { contract } from '../../core/contract/contract';
import { answers } from '../answers/answers';
import { dispatcher } from '../edge/dispatch';

/** Everything below `/api`, by the contract. */
export default dispatcher(contract, answers);
