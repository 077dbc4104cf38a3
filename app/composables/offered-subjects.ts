import type { Subject, SubjectGroup } from '#core/condition/subjects';

/** What a condition can look at where the items of a list are in scope, or none; it follows the figures of the draft. */
export function useOfferedSubjects(list: () => string | undefined) {
  const workshop = useWorkshop();
  const figures = useFiguresStore();
  const groups = shallowRef<SubjectGroup[]>([]);
  watch(
    () => [list(), figures.view] as const,
    async ([scope]) => {
      const offered = await workshop.subjects(scope);
      // Lists of the same subjects stay the same, so that an open list is not drawn anew.
      if (JSON.stringify(offered) !== JSON.stringify(groups.value)) groups.value = offered;
    },
    { immediate: true },
  );
  const find = (formula: string): Subject | undefined =>
    groups.value.flatMap(({ subjects }) => subjects).find((each) => each.formula === formula);
  return { groups, find };
}
