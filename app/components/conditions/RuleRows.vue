<script setup lang="ts">
import { ruleAbout } from '#core/condition/comparisons';
import type { Joins, Rule, RuleGroup } from '#core/condition/condition';
import type { Subject } from '#core/condition/subjects';

/** Rules that must hold all, or any of them; those of a group, or about the items of a list, among others. */
const { joins, rules, list, depth } = defineProps<{
  joins: Joins;
  rules: readonly (Rule | RuleGroup)[];
  /** The list whose items are in scope. */
  list?: string;
  depth: 'all' | 'group' | 'where';
}>();
const emit = defineEmits<{ change: [joins: Joins, rules: (Rule | RuleGroup)[]] }>();
const draft = useDraftStore();
const { groups, find } = useOfferedSubjects(() => list);

/** Lists are not looked into within lists. */
const offered = computed(() =>
  depth === 'where'
    ? groups.value.map((group) => ({ ...group, subjects: group.subjects.filter(({ kind }) => kind !== 'records') }))
    : groups.value,
);
const JOINS: Record<Joins, string> = { all: 'all of these', any: 'any of these' };
const options = (['all', 'any'] as const).map((value) => ({ value, label: JOINS[value] }));

const workshop = useWorkshop();
const others = shallowRef<Record<string, Subject>>({});
/** What a rule is about; what is not offered is asked for. */
function subjectOf({ subject: formula }: Rule): Subject {
  return find(formula) ?? others.value[formula] ?? { formula, label: formula, kind: 'other' };
}
watch(
  () => [groups.value, rules] as const,
  async () => {
    const missing = rules.flatMap((each) => ('subject' in each && !find(each.subject) ? [each.subject] : []));
    if (missing.length === 0 || groups.value.length === 0) return;
    const all = await Promise.all(missing.map((formula) => workshop.subject(formula, list)));
    others.value = Object.fromEntries(all.flatMap((each) => (each ? [[each.formula, each]] : [])));
  },
  { immediate: true },
);

const replaced = (at: number, ...next: (Rule | RuleGroup)[]) => emit('change', joins, rules.toSpliced(at, 1, ...next));

/** A rule about a subject, with the value that most records hold. */
async function begun(subject: Subject): Promise<Rule> {
  const rule = ruleAbout(subject);
  if (subject.path === undefined || rule.values[0]?.is !== 'text') return rule;
  const { values } = await heldValuesOf(draft.template!.record.type, subject.path);
  const { choices } = subject;
  const usual = values.find(({ value }) => !choices || choices.some((each) => each.value === value));
  return usual ? { ...rule, values: [{ is: 'text', text: usual.value }] } : rule;
}
const add = async (subject: Subject) => emit('change', joins, [...rules, await begun(subject)]);
const about = async (at: number, subject: Subject) => replaced(at, await begun(subject));

/** Puts the last rule into a group of its own, to which others can be added. */
function group(): void {
  const other: Joins = joins === 'all' ? 'any' : 'all';
  const last = rules.at(-1);
  if (!last || !('subject' in last)) return;
  emit('change', joins, [...rules.slice(0, -1), { joins: other, rules: [last] }]);
}
function changeGroup(at: number, itsJoins: Joins, itsRules: readonly (Rule | RuleGroup)[]): void {
  if (itsRules.length === 0) replaced(at);
  else replaced(at, { joins: itsJoins, rules: itsRules as Rule[] });
}
const PLACEHOLDERS = { all: 'Add a rule', group: 'Add to this group', where: 'Only items that…' };
</script>

<template>
  <div class="rows" :class="depth">
    <div v-if="rules.length > 1 || depth === 'group'" class="joins">
      <PickOne
        :label="depth === 'group' ? 'How the rules of the group count' : 'How the rules count'"
        :value="joins"
        :options="options"
        @choose="emit('change', $event, [...rules])"
      />
      <span class="quiet">{{ depth === 'all' ? 'hold' : '' }}</span>
    </div>
    <ol v-if="rules.length > 0">
      <li v-for="(each, at) in rules" :key="at">
        <RuleRow
          v-if="'subject' in each"
          :rule="each"
          :subject="subjectOf(each)"
          :groups="offered"
          :list="list"
          @change="replaced(at, $event)"
          @about="about(at, $event)"
          @remove="replaced(at)"
        />
        <RuleRows
          v-else
          :joins="each.joins"
          :rules="each.rules"
          :list="list"
          depth="group"
          @change="(itsJoins, itsRules) => changeGroup(at, itsJoins, itsRules)"
        />
      </li>
    </ol>
    <div class="acts">
      <SubjectPicker
        :groups="offered"
        :label="PLACEHOLDERS[depth]"
        :placeholder="PLACEHOLDERS[depth]"
        class="add"
        @choose="add"
      />
      <Button
        v-if="depth === 'all' && rules.length > 1 && 'subject' in rules.at(-1)!"
        v-tooltip.bottom="'Put the last rule into a group'"
        label="Group"
        size="small"
        severity="secondary"
        outlined
        @click="group"
      />
      <slot></slot>
    </div>
  </div>
</template>

<style scoped>
.rows {
  display: grid;
  grid-template-columns: minmax(0, 1fr);
  gap: 6px;
}
.joins {
  display: flex;
  gap: 7px;
  align-items: center;
}
ol {
  border: 1px solid var(--hairline);
  border-radius: 3px;
}
li + li {
  border-top: 1px solid var(--hairline);
}
.group {
  padding: 7px 8px;
  background: var(--stone-100);
}
.group > ol,
.where > ol {
  border: 0;
}
.group > ol > li,
.where > ol > li {
  border: 0;
}
.group :deep(.rule) {
  padding: 3px 0;
}
.where > ol {
  border-left: 2px solid var(--hairline);
  border-radius: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.acts :deep(.add .p-select-label) {
  padding: 3px 0 3px 9px;
  color: var(--ink);
  font-weight: 500;
}
.acts :deep(.add .p-select-dropdown) {
  width: 24px;
}
</style>
