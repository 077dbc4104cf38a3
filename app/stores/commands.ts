import { defineStore } from 'pinia';

/** Something that the open screen can do, found like everything else. */
export interface ScreenCommand {
  name: string;
  /** Its keys, or what it is about. */
  about: string;
  run: () => void;
}

/** What the open screen can do, for the search of everything. */
export const useCommandsStore = defineStore('commands', () => {
  /** Asked only when somebody searches. */
  const commands = shallowRef<() => readonly ScreenCommand[]>(() => []);
  return { commands };
});
