<script setup lang="ts">
import type { DatePickerBlurEvent } from 'primevue/datepicker';

/** A day, typed in figures or chosen from a calendar. It is told when it is complete: on Enter, on leaving, or once it is chosen. */
const { value } = defineProps<{
  /** ISO 8601. */
  value: string | undefined;
  label: string;
  busy?: boolean;
}>();
const emit = defineEmits<{ choose: [day: string | undefined]; unclear: [typed: string] }>();
const notation = dayNotation();
const day = shallowRef(dateOfDay(value));
const root = useTemplateRef<HTMLElement>('root');
watch(
  () => value,
  (now) => (day.value = dateOfDay(now)),
);

const tell = () => emit('choose', day.value ? dayOfDate(day.value) : undefined);

function finish(typed: string): void {
  const isUnderstood = typed.trim() === (day.value ? dayInFigures(day.value, notation) : '');
  if (isUnderstood) tell();
  else emit('unclear', typed.trim());
}
function leave({ originalEvent, value: typed }: DatePickerBlurEvent): void {
  // To its own calendar.
  if (root.value?.contains((originalEvent as FocusEvent).relatedTarget as Node | null)) return;
  finish(typed);
}
</script>

<template>
  <span ref="root" class="pick-day">
    <DatePicker
      :model-value="day"
      :date-format="notation"
      :placeholder="notation.replace('yy', 'yyyy')"
      :aria-label="label"
      :pt="{ dropdown: { 'aria-label': `${label}: calendar` } }"
      :readonly="busy"
      :show-on-focus="false"
      show-icon
      size="small"
      @update:model-value="day = ($event as Date | null) ?? null"
      @date-select="tell"
      @hide="tell"
      @blur="leave"
      @keydown.enter.prevent="finish(($event.target as HTMLInputElement).value)"
    />
  </span>
</template>

<style scoped>
.pick-day {
  display: inline-flex;
}
.pick-day :deep(.p-datepicker) {
  width: 128px;
}
.pick-day :deep(.p-datepicker-dropdown) {
  width: 26px;
}
</style>
