/** Things that go wrong on purpose, as they do with real services. */
export interface Fault {
  /** Which requests it befalls. */
  on: 'attach' | 'read' | 'patch' | 'activity' | 'token' | 'any';
  /**
   * `status` does nothing and answers with an OData error, or with a page where `plain`; `slow` waits `delay` ms first. These do the
   * work: `drop-after` closes the connection without an answer, `cut-off` in the middle of it, `stall` falls silent there, and
   * `page` answers with a page of status 200, as a proxy does.
   */
  kind: 'status' | 'drop-before' | 'drop-after' | 'slow' | 'cut-off' | 'stall' | 'page';
  status?: number;
  plain?: boolean;
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
    const fault = this.#pending.find((each) => each.on === on || (each.on === 'any' && on !== 'token'));
    if (!fault) return undefined;
    fault.times -= 1;
    this.#pending = this.#pending.filter((each) => each.times > 0);
    return fault;
  }
}
