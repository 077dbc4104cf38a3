/** Things that go wrong on purpose, as they do in a real CRM. */
export interface Fault {
  /** Which requests it befalls. */
  on: 'attach' | 'read' | 'patch' | 'any';
  /** `drop-after` does the work and closes the connection without an answer; `slow` waits `delay` ms first. */
  kind: 'status' | 'drop-before' | 'drop-after' | 'slow';
  status?: number;
  delay?: number;
  /** How many requests it befalls before it is over. */
  times: number;
}

/** The faults still to come. */
export class Faults {
  #pending: Fault[] = [];

  add(fault: Fault): void {
    this.#pending.push({ ...fault });
  }

  clear(): void {
    this.#pending = [];
  }

  list(): readonly Fault[] {
    return this.#pending;
  }

  /** Takes the next fault for a request of this kind, if one is due. */
  next(on: Fault['on']): Fault | undefined {
    const fault = this.#pending.find((each) => each.on === on || each.on === 'any');
    if (!fault) return undefined;
    fault.times -= 1;
    this.#pending = this.#pending.filter((each) => each.times > 0);
    return fault;
  }
}
