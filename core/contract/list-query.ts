import { boolean, number, text } from '../shape/shape';

/** Which part of a list is asked for, in which order. */
export const listQuery = {
  sort: text(40).default(''),
  descending: boolean().default(false),
  skip: number().integer().min(0).max(1_000_000_000).default(0),
  top: number().integer().min(1).max(100).default(50),
  search: text(200),
};
