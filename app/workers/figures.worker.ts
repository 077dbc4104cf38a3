import { expose } from 'comlink';
import { FigureWorkshop } from './figure-workshop';

expose(new FigureWorkshop());
