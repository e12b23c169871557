/** The search for fixes of the setup on the screen; the call and the Fixes tab share it. */
import type { Setup } from '$core/setup/schema';
import { findFixes, type Fixes, type Question } from './planner';
import { Search } from './search.svelte';

export class FixSearch {
  readonly search = new Search<Question, Fixes>(findFixes);
  readonly #question: () => Question;

  constructor(question: () => Question) {
    this.#question = question;
  }

  ask(): void {
    void this.search.ask(this.#question());
  }

  /** What was found for exactly this setup; null while it is being looked for. */
  for(setup: Setup): Fixes | null {
    const { answer } = this.search;
    return answer?.to.setup === setup ? answer.found : null;
  }
}
