<script lang="ts">
  import type { Arranged, DrillStep } from '$core/drills/series/steps';
  import type { DrillKit } from '$core/drills/drillSetup';
  import type { ListedDrill } from '$core/drills/kinds';
  import DrillPicture from './DrillPicture.svelte';

  interface Props {
    drill: ListedDrill;
    arranged: Arranged;
    kit: DrillKit;
    nameOf: (step: DrillStep) => string;
  }
  /** What the frame of a step one chooses must look like: seen before it is taken. */
  let { drill, arranged, kit, nameOf }: Props = $props();
  let chosen = $state('');
  const step = $derived(arranged.steps.find(({ id }) => id === chosen) ?? arranged.steps[0]);
  /** As high as the floor beside it. */
  const room = { width: 300, height: 182 } as const;
</script>

{#if step}
  <figure class="flex w-[300px] max-w-full flex-col bg-raised">
    <div class="grid flex-1 place-items-center bg-surround" style:min-height="{room.height}px">
      <DrillPicture {drill} {arranged} {kit} {step} name={nameOf(step)} {room} />
    </div>
    <figcaption class="flex items-center gap-2 px-2 py-0.5 text-[13px]">
      <label for="drill-finder-step" class="text-soft">expected</label>
      <select
        id="drill-finder-step"
        class="min-w-0 flex-1 border-0 bg-raised py-0 text-[13px]"
        value={step.id}
        onchange={(event) => (chosen = event.currentTarget.value)}
      >
        {#each arranged.steps as one (one.id)}<option value={one.id}>{nameOf(one)}</option>{/each}
      </select>
    </figcaption>
  </figure>
{/if}
