<script lang="ts">
  import { Button, Input } from 'flowbite-svelte';
  import { frameActions, shownKey, typedKey, usualFrameKeys, withKey, type FrameAction } from '$core/frames/keys';
  import Choice from '$lib/controls/Choice.svelte';
  import { getApp } from '$lib/state/app.svelte';

  /** One's own keys on Frames, and how large eyes are shown there. */
  const app = getApp();
  const keys = $derived(app.settings.now.frameKeys);
  const usual = $derived(frameActions.every((action) => keys[action] === usualFrameKeys[action]));
  const does: Readonly<Record<FrameAction, string>> = {
    keep: 'keep',
    maybe: 'maybe',
    reject: 'reject',
    open: 'open',
    beside: 'compare',
    show: 'show those',
    flip: 'flip'
  };
  const chosen = (event: Event) => (event.currentTarget as HTMLInputElement).select();
  function back() {
    const label = 'Back to the usual keys';
    app.messages.done(`${label}.`, app.settings.edit(label, { frameKeys: { ...usualFrameKeys } }));
  }
  function typed(event: Event, action: FrameAction) {
    const field = event.currentTarget as HTMLInputElement;
    const wanted = typedKey(field.value);
    if (wanted !== null) app.settings.edit('A key of yours', { frameKeys: withKey(keys, action, wanted) });
    field.value = shownKey(app.settings.now.frameKeys[action]);
    field.select();
  }
</script>

<div class="flex flex-wrap items-end gap-x-3 gap-y-3">
  {#each frameActions as action (action)}
    <label class="label block w-21"
      >{does[action]}
      <Input
        class="mt-0.5 text-center"
        size="sm"
        autocomplete="off"
        value={shownKey(keys[action])}
        onfocus={chosen}
        oninput={(event) => typed(event, action)}
      />
    </label>
  {/each}
</div>
<p class="mt-2 text-pretty">
  A key that means something else changes places with it. Enter keeps too, arrows go from frame to frame.
</p>
<div class="mt-4 flex flex-wrap items-end gap-x-6 gap-y-3">
  <Choice
    legend="Eyes in the table"
    value={app.settings.now.eyesShown}
    options={[
      { value: 'usual', name: 'as usual' },
      { value: 'large', name: 'large' }
    ]}
    onchange={(eyesShown) => app.settings.set({ eyesShown })}
  />
  <Button size="sm" color="alternative" disabled={usual} onclick={back}>Back to the usual keys</Button>
</div>
