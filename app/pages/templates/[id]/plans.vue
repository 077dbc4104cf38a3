<script setup lang="ts">
import { partField } from '#core/record/layout';
import { recordTypeOf } from '#core/record/schema';
import { firstFree } from '#core/shape/first-free';
import type { Plan } from '#core/template/plan';
import type { Template } from '#core/template/template';

/** The ways out of a template, as forms: a plan each, and which records the template is for. */
const route = useRoute();
const changeQuery = useChangeQuery();
const draft = useDraftStore();
const figures = useFiguresStore();
const { barred, mayPublish, recordType, shownName, chooseRecord } = useDraftScreen();
const templateId = computed(() => String(route.params.id));
const publishOpen = ref(false);
const conflictOpen = ref(false);
const named = useLoaded(async () => {
  const [series, { places }] = await Promise.all([api('GET /series'), api('GET /places')]);
  return { series, places };
});
const load = () => figures.load(templateId.value, route.query.record?.toString(), !barred.value);
watch(templateId, load, { immediate: true });
void named.reload();

const template = computed(() => draft.template);
const schema = computed(() => draft.opened?.schema);
const plans = computed(() => template.value?.plans ?? []);
const plan = computed(() => plans.value.find(({ id }) => id === route.query.plan) ?? plans.value[0]);
const open = (id: string) => changeQuery({ plan: id }, 'replace');
const stages = computed(() => {
  const { type } = template.value?.record ?? { type: '' };
  if (!schema.value) return [];
  const stage = partField(schema.value, type, 'stage');
  return stage ? (recordTypeOf(schema.value, type)?.fields[stage]?.allowed ?? []) : [];
});

const change = (next: Template, words: string) => draft.change(next, { words, joins: words });
const setPlans = (next: Plan[], words: string) => change({ ...template.value!, plans: next }, words);
const changePlan = (next: Plan, words: string) =>
  setPlans(
    plans.value.map((each) => (each.id === next.id ? next : each)),
    words,
  );
function add(): void {
  const id = firstFree(
    (count) => `plan-${plans.value.length + count}`,
    plans.value.map((each) => each.id),
  );
  const { steps: _, ...like } = plan.value!;
  setPlans([...plans.value, { ...like, id, label: id.replace('plan-', 'Plan ') }], 'Plan added');
  void open(id);
}
const makeUsual = (usual: Plan) =>
  setPlans([usual, ...plans.value.filter(({ id }) => id !== usual.id)], `${usual.label} is the usual plan`);
const remove = (gone: Plan) =>
  setPlans(
    plans.value.filter(({ id }) => id !== gone.id),
    `${gone.label} removed`,
  );
useKeys({ 'Control+Enter': () => (publishOpen.value = mayPublish.value) });
</script>

<template>
  <div class="plans">
    <WhereAmI
      :title="`Filing of ${template?.name ?? ''}`"
      here="Filing"
      :way="[
        { label: 'Templates', to: '/templates' },
        { label: template?.name ?? 'Template', to: `/templates/${templateId}` },
      ]"
    />
    <ProblemNote
      v-if="figures.problem && !template"
      :problem="figures.problem"
      :way="{ label: 'All templates', to: '/templates' }"
      @again="load"
    />
    <ProblemNote v-else-if="named.problem.value" :problem="named.problem.value" @again="named.reload" />
    <template v-else>
      <div class="strip">
        <span class="quiet">Values for</span>
        <RecordPicker
          v-if="recordType"
          :type="recordType"
          :name="shownName"
          label="Record to show values for"
          @choose="chooseRecord"
        />
        <span class="announcement" role="status">{{ draft.announcement }}</span>
        <span class="spring"></span>
        <button type="button" class="in-words" :disabled="draft.past.length === 0" @click="figures.undo">Undo</button>
        <button type="button" class="in-words" :disabled="draft.future.length === 0" @click="figures.redo">Redo</button>
        <DraftState @conflict="conflictOpen = true" @discard="draft.throwAway()" />
        <PermittedButton
          label="Publish"
          size="small"
          :disabled="!barred && !mayPublish"
          :why-not="barred"
          @press="publishOpen = true"
        />
      </div>
      <div v-if="template && plan && schema && named.value.value" class="work" :inert="barred !== undefined">
        <aside>
          <h2>Plans</h2>
          <ol>
            <li v-for="(each, at) in plans" :key="each.id">
              <button type="button" :aria-current="each.id === plan.id" @click="open(each.id)">
                {{ each.label }}
                <span class="quiet">{{ at === 0 ? 'the usual one' : '' }}</span>
              </button>
            </li>
          </ol>
          <Button label="Add a plan" severity="secondary" outlined size="small" @click="add" />
          <h2>Records</h2>
          <FitForm :template="template" :stages="stages" @change="change" />
          <h2>Asked for with each document</h2>
          <AsksForm :template="template" @change="change" />
        </aside>
        <section class="form" :aria-label="`The plan ${plan.label}`">
          <header>
            <h2>{{ plan.label }}</h2>
            <template v-if="plans.length > 1">
              <Button
                v-if="plan.id !== plans[0]!.id"
                label="Make it the usual one"
                size="small"
                severity="secondary"
                text
                @click="makeUsual(plan)"
              />
              <Button label="Remove" size="small" severity="secondary" text @click="remove(plan)" />
            </template>
          </header>
          <PlanForm
            :key="plan.id"
            :plan="plan"
            :schema="schema"
            :type="template.record.type"
            :series="named.value.value.series"
            :places="named.value.value.places"
            @change="changePlan"
          />
        </section>
      </div>
    </template>
    <PublishDraft v-model:open="publishOpen" />
    <DraftConflict v-model:open="conflictOpen" />
  </div>
</template>

<style scoped>
.plans {
  display: flex;
  flex-direction: column;
  height: 100%;
}
.strip {
  display: flex;
  flex: none;
  gap: 14px;
  align-items: center;
  padding: 8px 16px;
  background: var(--sheet);
  border-bottom: 1px solid var(--hairline);
}
.spring {
  flex: 1;
}
.announcement {
  color: var(--verdigris);
}
.work {
  display: grid;
  flex: 1;
  grid-template-columns: 320px minmax(0, 720px);
  gap: 24px;
  align-items: start;
  min-height: 0;
  padding: 20px 24px 40px;
  overflow: auto;
  background: var(--desk);
}
aside,
.form {
  display: grid;
  gap: 12px;
  padding: 18px 20px 22px;
  background: var(--sheet);
  border: 1px solid var(--hairline);
}
h2 {
  font: 600 14px/18px var(--serif);
}
aside > button {
  justify-self: start;
}
ol button {
  display: flex;
  gap: 8px;
  justify-content: space-between;
  width: 100%;
  padding: 7px 10px;
  background: none;
  border: 0;
  border-bottom: 1px solid var(--hairline-soft);
  color: var(--ink);
  text-align: start;
  cursor: pointer;
}
ol [aria-current='true'] {
  background: var(--stone-50);
  box-shadow: inset 2px 0 var(--ink);
  font-weight: 500;
}
.form header {
  display: flex;
  gap: 6px;
  align-items: center;
}
.form h2 {
  flex: 1;
}
</style>
