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
        : 'The browser may remove it when space runs short: keep a file of everything elsewhere.';
    });
  });
</script>

<p data-testid="space">{used}{used !== '' && kept !== '' ? ' ' : ''}{kept}</p>
<p class="mt-1" data-testid="offline">
  {offline.ready
    ? 'Kept in this browser: works without a network.'
    : offline.possible
      ? 'Not yet kept in this browser.'
      : 'Without a network it works only over https, or on the machine it runs on.'}
</p>
