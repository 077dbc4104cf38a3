import type { RecordSnapshot } from '../../core/record/snapshot';

/** Records with more related records than this are set in a process of their own, which takes its time. */
const MOST = 2_000;

/** Whether setting a record's document takes minutes, and memory that the machine should have back. */
export const isOutsize = ({ fields }: RecordSnapshot): boolean =>
  Object.values(fields).some((value) => Array.isArray(value) && value.length > MOST);
