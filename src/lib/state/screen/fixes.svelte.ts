/** The search for fixes of the setup on the screen; the call and the Fixes tab share it. */
import type { PlanInput } from '$core/call/planInput';
import { findFixes, type Fixes } from '../../../workers/clients/planner';
import { Search } from './search.svelte';

export class FixSearch {
  readonly search = new Search<PlanInput, Fixes>(findFixes);
  readonly #question: () => PlanInput;

  constructor(question: () => PlanInput) {
    this.#question = question;
  }

  ask(): void {
    void this.search.ask(this.#question());
  }

  /** What was found last, and for what. */
  get answer(): { readonly to: PlanInput; readonly found: Fixes } | null {
    return this.search.answer;
  }

  /** Whether it answers the setup as it is now. */
  get isCurrent(): boolean {
    return this.answer?.to.setup === this.#question().setup;
  }
}
