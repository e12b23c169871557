<script lang="ts" generics="T extends string">
  interface Props {
    legend: string;
    options: readonly { readonly value: T; readonly name: string }[];
    value: T;
    onchange: (value: T) => unknown;
    hideLegend?: boolean;
    small?: boolean;
    /** Breaks into lines where it must. */
    wrap?: boolean;
  }
  let { legend, options, value, onchange, hideLegend = false, small = false, wrap = false }: Props = $props();
  const id = $props.id();
</script>

<fieldset class="min-w-0">
  <legend class={hideLegend ? 'sr-only' : 'label mb-0.5'}>{legend}</legend>
  <div
    class="flex {wrap
      ? 'flex-wrap *:h-8'
      : small
        ? 'h-6 text-[12px]'
        : 'h-8'} w-fit max-w-full rounded-[2px] border border-line bg-raised"
  >
    {#each options as option (option.value)}
      <label
        class="relative flex min-w-0 cursor-pointer items-center border-l border-line {small
          ? 'px-1.5'
          : 'px-2.5'} whitespace-nowrap first:border-l-0 has-checked:bg-ink has-checked:text-surface has-focus-visible:outline-2 has-focus-visible:outline-offset-2 has-focus-visible:outline-cool"
      >
        <input
          type="radio"
          class="sr-only"
          name={id}
          value={option.value}
          checked={option.value === value}
          onchange={() => onchange(option.value)}
        />
        {option.name}
      </label>
    {/each}
  </div>
</fieldset>
