import {
  BriefcaseBusiness,
  Building2,
  CalendarDays,
  Folder,
  Package,
  Tag,
  Truck,
  UserRound,
  Wrench,
} from 'lucide-vue-next';
import type { RecordIcon } from '#core/record/layout';

const ICONS = {
  briefcase: BriefcaseBusiness,
  building: Building2,
  person: UserRound,
  box: Package,
  tag: Tag,
  calendar: CalendarDays,
  truck: Truck,
  wrench: Wrench,
  folder: Folder,
} satisfies Record<RecordIcon, unknown>;

/** The picture of a type of records; a folder where none was chosen. */
export const recordIcon = (icon: RecordIcon | null | undefined) => ICONS[icon ?? 'folder'];
