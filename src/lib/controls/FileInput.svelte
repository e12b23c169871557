<script lang="ts">
  interface Props {
    label: string;
    accept: string;
    onfile: (file: File) => unknown;
  }
  /** A chooser of files that something else opens; the same file may be chosen twice. */
  let { label, accept, onfile }: Props = $props();
  let input = $state<HTMLInputElement>();
  export const open = () => input?.click();

  function chosen(event: Event) {
    const field = event.currentTarget as HTMLInputElement;
    const file = field.files?.[0];
    field.value = '';
    if (file) onfile(file);
  }
</script>

<input bind:this={input} type="file" {accept} class="sr-only" tabindex="-1" aria-label={label} onchange={chosen} />
