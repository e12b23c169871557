<script lang="ts">
  import { getOffline } from '$lib/shell/offline/context';
  import { spaceWords } from './space';

  /** What Focalis takes of this machine, and whether it works without a network. */
  const offline = getOffline();
  let used = $state('');
  let kept = $state('');
  $effect(() => {
    const { storage } = navigator;
    void storage?.estimate?.().then((estimate) => (used = spaceWords(estimate)));
    void storage?.persisted?.().then((persisted) => {
      kept = persisted
        ? 'The browser keeps it until you remove it.'
        : 'The browser may delete it when space runs short: keep a backup elsewhere.';
    });
  });
</script>

<p data-testid="space">{used}{used !== '' && kept !== '' ? ' ' : ''}{kept}</p>
<p class="mt-1" data-testid="offline">
  {offline.ready
    ? 'Works offline.'
    : offline.possible
      ? 'Not ready to work offline yet.'
      : 'Works offline only over https, or on this machine.'}
</p>
