import { string } from 'yup';
import { boolean, number, text } from '../shape/shape';

/** Which part of a list is asked for, in which order. */
export const listQuery = {
  sort: text(40).default(''),
  descending: boolean().default(false),
  skip: number().integer().min(0).max(1_000_000_000).default(0),
  top: number().integer().min(1).max(100).default(50),
  search: text(200),
};

export const isoDay = () => string().matches(/^\d{4}-\d{2}-\d{2}$/, 'a day such as 2026-11-23');
/** The first and the last of the days that something was on, both included. */
export const days = { from: isoDay(), until: isoDay() };
