<script lang="ts">
  import { planSetup } from '$core/call/planSetup';
  import { withKitOnOffer } from '$core/setup/chooseKit';
  import { bodyOf } from '$core/kit/find';
  import { setupFrom, templates, templateWords, type TemplateChoices } from '$core/setup/templates';
  import Outline from '$lib/finder/Outline.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** Eight kinds of picture, drawn; one press leads to a call. All else is asked afterwards, with an answer in view. */
  let { onchoose }: { onchoose: (choices: TemplateChoices) => void } = $props();
  const app = getApp();
  const size = { width: 132, height: 92 } as const;
  const shown = $derived(
    templates.map((template) => {
      const { offered: kit } = app.open;
      const made = setupFrom({ template }, template);
      const setup = { ...made, camera: withKitOnOffer(made.camera, kit) };
      const { habits } = app.settings.now;
      return {
        template,
        setup,
        body: bodyOf(kit, setup.camera),
        plan: planSetup({ setup, kit, stopStep: 'third', habits })
      };
    })
  );
</script>

<ul class="grid grid-cols-2 gap-2 sm:grid-cols-4">
  {#each shown as { template, setup, body, plan } (template)}
    <li>
      <button
        type="button"
        class="group flex h-full w-full flex-col border border-line bg-raised text-left hover:border-pencil"
        onclick={() => onchoose({ template })}
      >
        <span class="grid h-[92px] place-items-center overflow-hidden bg-[#808080]" aria-hidden="true">
          {#if body && plan.kind === 'plan'}<Outline {setup} {plan} {body} {...size} plain />{/if}
        </span>
        <span class="p-2">
          <span class="condensed block text-[15px] leading-tight font-semibold group-hover:text-pencil"
            >{templateWords[template].title}</span
          >
          <span class="label mt-0.5 block">{templateWords[template].detail}</span>
        </span>
      </button>
    </li>
  {/each}
</ul>
