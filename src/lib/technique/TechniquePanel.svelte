<script lang="ts">
  import HowComputed from '$lib/controls/HowComputed.svelte';
  import type { PlanInput } from '$core/call/planInput';
  import type { Technique } from '$core/technique/technique';
  import {
    acrossWords,
    holdWords,
    muzzleWords,
    phoneWords,
    reachWords,
    ruleName,
    subjectWayName,
    subjectWayWords
  } from '$core/words/technique';
  import { wayName, waysSentence } from '$core/words/ways';
  import Failed from '$lib/controls/Failed.svelte';
  import Older from '$lib/controls/Older.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { findTechnique } from '../../workers/clients/planner';
  import { Search } from '$lib/state/screen/search.svelte';
  import { getWorkspace } from '$lib/state/screen/workspace.svelte';
  import HoldChart from './HoldChart.svelte';
  import Part from './Part.svelte';
  import PointPart from './PointPart.svelte';
  import PrefocusPart from './PrefocusPart.svelte';
  import RecomposePart from './RecomposePart.svelte';
  import RulesPart from './RulesPart.svelte';
  import StitchPart from './StitchPart.svelte';
  import TakeRow from './TakeRow.svelte';
  import TrapPart from './TrapPart.svelte';
  import TriggerFields from './TriggerFields.svelte';
  import WayRow from './WayRow.svelte';

  /** What would the camera take? Every way of focusing, best first, and what the hand does to it. */
  const workspace = getWorkspace();
  const search = new Search<PlanInput, Technique | null>(findTechnique);
  $effect(() => {
    void search.ask(workspace.question);
  });
  $effect(() => () => workspace.lookAway());
  const answer = $derived(search.answer);
  const found = $derived(answer?.found ?? null);
  const older = $derived(answer !== null && answer.to.setup !== workspace.setup);
  const plan = $derived(workspace.plan);
  /** How many ways greet you; the one in use is always among them. */
  const best = 3;
  let all = $state(false);
  const shown = $derived(found?.ways.filter((way, index) => all || index < best || way.inUse) ?? []);
  const take = (label: string, setup: PlanInput['setup']) => {
    if (answer) workspace.takeOver(label, { asked: answer.to.setup, setup });
  };
</script>

{#if !plan}
  <p class="text-soft">Add a person to compare focusing methods.</p>
{:else if !found}
  {#if search.failure}
    <Failed what="This could not be worked out." why={search.failure} onretry={() => search.ask(workspace.question)} />
  {:else if search.slow}
    <Progress label="Looking at what lies under each focus area" share={search.progress} />
  {/if}
{:else}
  <div class:opacity-60={older} data-testid="technique">
    <h2 class="condensed text-[19px] leading-tight font-bold text-balance">
      {waysSentence(plan, found.ways)}<HowComputed of="landings" class="ml-1" />
    </h2>
    {#if found.inPrint}<p class="text-soft">Keeper rates in print.</p>{/if}
    <ol class="mt-2 border-t border-line" data-testid="ways">
      {#each shown as way (way.kind)}
        <WayRow {plan} {way} ontake={() => take(wayName(plan, way), way.setup)} />
      {/each}
    </ol>
    {#if found.ways.length > shown.length || all}
      <button type="button" class="min-h-7 font-medium underline underline-offset-2" onclick={() => (all = !all)}
        >{all ? `Best ${best} only` : `All ${found.ways.length}`}</button
      >
    {/if}
    <TriggerFields />
    {#if found.point}
      <Part title="AF point on the face"><PointPart {plan} advice={found.point} /></Part>
    {/if}
    {#if found.reach.length > 0}
      <Part title="No AF point reaches the eye">
        <ul data-testid="reach">
          {#each found.reach as way (way.kind)}
            {@const words = reachWords(way, workspace.unit)}
            <TakeRow
              name={words}
              more=""
              odds={way.odds}
              inUse={false}
              ontake={() => take(words, way.setup)}
              onlook={() => workspace.lookAt(words, way.setup, [])}
              onleave={() => workspace.lookAway()}
            />
          {/each}
        </ul>
      </Part>
    {/if}
    {#if found.subjects.length > 0}
      <Part title="Person with object">
        <ul data-testid="subject-ways">
          {#each found.subjects as way (way.subject)}
            <TakeRow
              name={subjectWayName(way)}
              more={subjectWayWords(way)}
              odds={way.odds}
              inUse={way.inUse}
              ontake={() => take(subjectWayName(way), way.setup)}
              onlook={() => workspace.lookAt(subjectWayName(way), way.setup, [], way.stop)}
              onleave={() => workspace.lookAway()}
            />
          {/each}
        </ul>
      </Part>
    {/if}
    {#if found.muzzles.length > 0}
      <Part title="Eye, not muzzle">
        {#each found.muzzles as muzzle (muzzle.id)}<p class="mt-1 text-pretty">
            {muzzleWords(muzzle, workspace.unit)}
          </p>{/each}
      </Part>
    {/if}
    {#if found.phone}
      <Part title="With a phone">
        {#each phoneWords(found.phone, workspace.unit) as line (line)}<p class="mt-1 text-pretty">{line}</p>{/each}
      </Part>
    {/if}
    {#if workspace.setup.camera.stitch && plan}<StitchPart {plan} />{/if}
    {#if found.recomposing}
      <Part folded title="Move the point or recompose?"><RecomposePart {plan} found={found.recomposing} /></Part>
    {/if}
    {#if found.trap}
      <Part title="Track, or prefocus on a mark?">
        <TrapPart trap={found.trap} />
        <PrefocusPart />
      </Part>
    {/if}
    {#if found.across}
      <Part title="Moving across the frame">
        <p class="mt-1 text-pretty">{acrossWords(plan, found.across)}</p>
        {#if !found.trap}<PrefocusPart />{/if}
      </Part>
    {/if}
    {#if found.hold}
      <Part folded title="How long focus stays good">
        <p class="mt-1 text-pretty">{holdWords(found.hold)}</p>
        <HoldChart hold={found.hold} wanted={plan.oddsWanted} />
      </Part>
    {/if}
    {#if found.rules.length > 0}
      <Part folded title="Rules of thumb, tested" note="What each would have given at this stop, or at its own.">
        <RulesPart {plan} rules={found.rules} ontake={(rule) => take(ruleName(rule), rule.setup)} />
      </Part>
    {/if}
  </div>
  {#if search.failure}
    <Failed
      what="This could not be worked out again."
      why={search.failure}
      onretry={() => search.ask(workspace.question)}
    />
  {:else if older}<Older slow={search.slow} />{/if}
{/if}
