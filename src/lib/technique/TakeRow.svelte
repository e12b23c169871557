<script lang="ts">
  import { oddsWords } from '$core/words/call';
  import TakeButton from './TakeButton.svelte';

  interface Props {
    name: string;
    more: string;
    odds: number;
    inUse: boolean;
    /** Worse by far than the call: not set in bold. */
    faint?: boolean;
    ontake: () => unknown;
    onlook: () => unknown;
    onleave: () => unknown;
  }
  /** One way of doing it: what it is, its odds, one press to take it. */
  let { name, more, odds, inUse, faint = false, ontake, onlook, onleave }: Props = $props();
</script>

<li
  class="grid grid-cols-[minmax(0,1fr)_auto_4.5rem] items-center gap-x-3 border-b border-line py-1.5"
  onpointerenter={onlook}
  onpointerleave={onleave}
  onfocusin={onlook}
  onfocusout={onleave}
>
  <p class="min-w-0 text-pretty">
    <span class={inUse ? 'font-bold' : 'font-medium'}>{name}</span>
    <span class="condensed text-soft">{more}</span>
  </p>
  <span class="condensed text-right tabular-nums {faint ? 'text-soft' : 'font-semibold'}">{oddsWords(odds)}</span>
  <TakeButton {name} {inUse} {ontake} />
</li>
