<script lang="ts">
  import type { Snippet } from 'svelte';

  interface Props {
    /** What the button shows. */
    label: Snippet;
    /** List items with buttons in them. */
    children: Snippet;
    open: boolean;
    /** What the button does, where it shows no words. */
    name?: string;
    /** The list ends where the button ends. */
    atEnd?: boolean;
  }
  /** A button with a list of things to do under it. Pressed it opens and shuts; Escape and leaving it shut it. */
  let { label, children, open = $bindable(), name, atEnd = false }: Props = $props();
  const id = $props.id();
  let whole = $state<HTMLDivElement>();
  let button = $state<HTMLButtonElement>();

  function left(event: FocusEvent) {
    if (event.relatedTarget instanceof Node && !whole?.contains(event.relatedTarget)) open = false;
  }
  function onkeydown(event: KeyboardEvent) {
    if (!open || !['Escape', 'ArrowDown', 'ArrowUp'].includes(event.key)) return;
    event.preventDefault();
    event.stopPropagation();
    if (event.key === 'Escape') {
      open = false;
      button?.focus();
      return;
    }
    const items = [...(whole?.querySelectorAll<HTMLElement>('li button') ?? [])];
    const at = items.findIndex((item) => item === document.activeElement);
    const by = event.key === 'ArrowDown' ? 1 : -1;
    items[(at < 0 && by < 0 ? items.length - 1 : at + by + items.length) % items.length]?.focus();
  }
  function pressedOutside(event: PointerEvent) {
    if (open && event.target instanceof Node && !whole?.contains(event.target)) open = false;
  }
</script>

<svelte:document onpointerdown={pressedOutside} />
<!-- svelte-ignore a11y_no_static_element_interactions -->
<div bind:this={whole} class="relative min-w-0" onfocusout={left} {onkeydown}>
  <button
    bind:this={button}
    type="button"
    class="condensed flex h-8 max-w-full min-w-0 items-center gap-1 text-[14px]"
    aria-label={name}
    title={name}
    aria-expanded={open}
    aria-controls={open ? id : undefined}
    onclick={() => (open = !open)}
  >
    {@render label()}
  </button>
  {#if open}
    <ul
      {id}
      class="absolute top-9 z-30 max-h-80 w-64 overflow-y-auto border border-line bg-raised py-1 shadow-lg {atEnd
        ? 'right-0'
        : 'left-0'}"
    >
      {@render children()}
    </ul>
  {/if}
</div>
