<script setup lang="ts">
import { MOST_BACKDATED } from '#core/production/issue-days';
import { idFor } from '#core/shape/first-free';
import type { Answer } from '~/composables/api';

/** The series that documents take their numbers from. */
type Series = Answer<'GET /series'>[number];
const loaded = useLoaded(() => api('GET /series'));
const all = computed(() => loaded.value.value ?? []);
const act = useAct(loaded.reload);
const { busy, problem, attempt } = useAttempt();

/** The series that is open; a new one where it has no id yet. */
const open = ref<{ id?: string; label: string; formula: string; days: number | null }>();
const NEW = { label: '', formula: '"N-" & TEXT(document.issue_date, "yyyy") & "-" & SERIAL(4)', days: 0 };
const edit = ({ id, label, formula, backdatedDays }: Series) =>
  (open.value = { id, label, formula, days: backdatedDays });

/** What the formula gives, as it is typed. */
const tried = useLoaded(() => api('GET /series/numbers', { query: { formula: open.value?.formula ?? '' } }));
watchDebounced(
  () => open.value?.formula,
  (formula) => formula && void tried.reload(),
  { debounce: 200, immediate: true },
);
const fault = computed(() => tried.value.value?.fault ?? tried.problem.value?.detail);

/** What is told of a series below its name. */
function aboutWords({ taken, lastIssued, backdatedDays }: Series): string {
  const last = lastIssued ? `, the last on ${dayText(lastIssued)}` : '';
  const used = taken === 0 ? 'none taken this year' : `${taken} taken this year${last}`;
  const days = backdatedDays === 1 ? 'a day' : `${backdatedDays} days`;
  return `${used}; issued ${backdatedDays === 0 ? 'on the day of filing' : `up to ${days} before filing`}`;
}

async function save(): Promise<void> {
  const { id, label, formula, days } = open.value!;
  const kept = await attempt(async () => {
    await api('PUT /series/{id}', {
      parameters: { id: id ?? idFor(label, 'series', all.value) },
      body: { label: label.trim(), formula: formula.trim(), backdatedDays: days ?? 0 },
    });
    await loaded.reload();
  });
  if (kept) open.value = undefined;
}
const remove = ({ id, label }: Series) =>
  act(() => api('DELETE /series/{id}', { parameters: { id } }), `${label} is gone`);
void loaded.reload();
await soon(loaded.first);
</script>

<template>
  <ProblemNote v-if="loaded.problem.value" :problem="loaded.problem.value" @again="loaded.reload" />
  <ListAndForm
    v-else
    title="Number series"
    :form-title="open && (open.id ? 'Change the series' : 'New series')"
    @save="save"
  >
    <p class="quiet">
      A plan’s documents take their numbers from one of these, without gaps. Serials begin anew each year.
    </p>
    <ul>
      <li v-for="series in all" :key="series.id">
        <span class="label"
          ><span
            ><b>{{ series.label }}</b> next: <span class="mono">{{ series.next ?? 'none' }}</span></span
          >
          <span class="quiet">{{ aboutWords(series) }}</span></span
        >
        <Button
          label="Change"
          size="small"
          severity="secondary"
          text
          :aria-label="`Change ${series.label}`"
          @click="edit(series)"
        />
        <Button
          v-if="series.taken === 0"
          label="Remove"
          size="small"
          severity="secondary"
          text
          :aria-label="`Remove ${series.label}`"
          @click="remove(series)"
        />
      </li>
    </ul>
    <Button class="add" label="Add a series" severity="secondary" outlined size="small" @click="open = { ...NEW }" />
    <template v-if="open" #form>
      <LabelledField id="series-label" v-model="open.label" label="Name" autofocus required />
      <div class="labelled">
        <label for="series-formula">Number, as a formula</label>
        <Textarea
          id="series-formula"
          v-model="open.formula"
          rows="3"
          required
          spellcheck="false"
          aria-describedby="series-formula-hint"
        />
        <p id="series-formula-hint" class="quiet">
          It reads document.issue_date and SERIAL(4), the serial with so many digits.
        </p>
      </div>
      <p v-if="fault" class="fault" role="alert">{{ fault }}</p>
      <p v-else-if="tried.value.value" class="quiet" role="status">
        Begins with <span class="mono">{{ tried.value.value.numbers.join(', ') }}</span>
      </p>
      <div class="labelled">
        <label for="series-days">Days before filing that a document may be issued on</label>
        <InputNumber v-model="open.days" input-id="series-days" :min="0" :max="MOST_BACKDATED" size="small" />
      </div>
      <RefusedNote :problem="problem" />
      <footer>
        <Button type="button" label="Cancel" severity="secondary" text @click="open = undefined" />
        <Button type="submit" label="Save" :loading="busy" :disabled="!!fault" />
      </footer>
    </template>
  </ListAndForm>
</template>

<style scoped>
.fault {
  color: var(--brick);
}
.labelled {
  display: grid;
  gap: 3px;
}
label {
  font-weight: 500;
}
textarea {
  font: 12px/17px var(--mono);
}
.labelled p {
  font-size: 12px;
  line-height: 16px;
}
</style>
