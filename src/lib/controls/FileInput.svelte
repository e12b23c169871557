<script lang="ts">
  interface Props {
    label: string;
    accept: string;
    /** A phone opens its camera for it. */
    capture?: 'environment';
    /** One file … */
    onfile?: (file: File) => unknown;
    /** … or as many as one likes. */
    onfiles?: (files: File[]) => unknown;
  }
  /** A chooser of files that something else opens; the same file may be chosen twice. */
  let { label, accept, capture, onfile, onfiles }: Props = $props();
  let input = $state<HTMLInputElement>();
  export const open = () => input?.click();

  function chosen(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const files = [...(field.files ?? [])];
    field.value = '';
    const [first] = files;
    if (!first) return;
    onfiles?.(files);
    onfile?.(first);
  }
</script>

<input
  bind:this={input}
  type="file"
  {accept}
  {capture}
  multiple={onfiles !== undefined}
  class="sr-only"
  tabindex="-1"
  aria-label={label}
  onchange={chosen}
/>
