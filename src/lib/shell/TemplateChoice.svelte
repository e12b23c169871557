<script lang="ts">
  import { templates, templateWords, type Template } from '$core/setup/templates';

  let { onchoose }: { onchoose: (template: Template) => void } = $props();
</script>

<ul class="divide-y divide-line border-y border-line">
  {#each templates as template (template)}
    <li>
      <button type="button" class="group w-full py-3 text-left" onclick={() => onchoose(template)}>
        <span class="condensed block text-[18px] font-semibold group-hover:text-pencil"
          >{templateWords[template].title}</span
        >
        <span class="text-soft">{templateWords[template].detail}</span>
      </button>
    </li>
  {/each}
</ul>
