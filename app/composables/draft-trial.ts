/** Opens a draft as a trial PDF, for the record that is shown. */
export function useDraftTrial() {
  const draft = useDraftStore();
  const figures = useFiguresStore();
  const { busy, problem, attempt } = useAttempt();

  async function openTrial(): Promise<void> {
    if (busy.value || !draft.template || !figures.shown) return;
    // Opened at once: browsers let a window open only while a person presses something.
    const page = window.open('', '_blank');
    const isDone = await attempt(async () => {
      await draft.save();
      const record = figures.isSample ? undefined : figures.shown!.record.id;
      const parameters = { id: draft.template!.id };
      const answer = await fetch(addressOf('GET /templates/{id}/draft/trial', { parameters, query: { record } }));
      // In the form that failed calls have.
      if (!answer.ok) throw { data: await answer.json() };
      if (page) page.location.href = URL.createObjectURL(await answer.blob());
    });
    if (!isDone) page?.close();
  }
  return { busy, problem, openTrial };
}
