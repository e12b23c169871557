<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import { isSharpInPrintOnly } from '$core/call/inPrint';
  import { bounds } from '$core/setup/bounds';
  import type { Setup } from '$core/setup/schema';
  import { callSentence, keeperRateWords } from '$core/words/call';
  import { groupWords, ofHundred, sureWords, surerStop } from '$core/words/fromPhoto';
  import Dialog from '$lib/controls/Dialog.svelte';
  import Failed from '$lib/controls/Failed.svelte';
  import FileInput from '$lib/controls/FileInput.svelte';
  import LengthField from '$lib/controls/LengthField.svelte';
  import Progress from '$lib/controls/Progress.svelte';
  import { getApp } from '$lib/state/app.svelte';
  import PhotoFaces from './PhotoFaces.svelte';
  import PhotoFloor from './PhotoFloor.svelte';
  import { PhotoReading } from './photoReading.svelte';

  interface Props {
    open: boolean;
    /** The setup that is looked at: its camera and its background stay. */
    planned?: Setup | null;
    /** A photo that is chosen already. */
    file?: File | null;
    onmade: (setup: Setup) => unknown;
  }
  /** A photo of the group, and at once who stands where and the call. */
  let { open = $bindable(), planned = null, file = null, onmade }: Props = $props();
  const app = getApp();
  const photo = new PhotoReading(() => planned);
  const unit = $derived(app.settings.now.unit);
  const plan = $derived(photo.planned?.plan.kind === 'plan' ? photo.planned.plan : null);
  const called = $derived(plan?.stops[plan.selected]?.stop.label ?? '');
  const inPrint = $derived(plan !== null && isSharpInPrintOnly(plan));
  const answer = $derived(photo.answer);
  const sure = $derived(answer ? sureWords(answer.held, called) : null);
  const surer = $derived(answer ? surerStop(answer.held, called) : null);
  let chooser = $state<{ open: () => void }>();
  $effect(() => {
    if (!open) photo.close();
    else if (file) void photo.open(file);
  });

  function make(stop: string | null) {
    if (!answer) return;
    const { setup } = answer;
    const intent =
      stop === null ? setup.intent : { ...setup.intent, stop: { kind: 'chosen', fNumber: Number(stop) } as const };
    open = false;
    // Another setup of the same photo is one of other people.
    photo.clear();
    onmade({ ...setup, intent });
  }
</script>

<Dialog bind:open title={planned ? 'Look' : 'Start from a photo'} size="xl">
  <div class="space-y-4" data-testid="from-photo">
    {#if !photo.read}
      <p class="max-w-xl text-pretty">
        Choose a photo of the group as they stand, straight from a phone or camera. Focalis reads how far away each face
        is. It stays on this device.
      </p>
    {/if}
    <FileInput
      bind:this={chooser}
      label="Photo of the group"
      accept="image/*"
      capture={planned ? 'environment' : undefined}
      onfile={(file) => void photo.open(file)}
    />
    {#if photo.reading}
      <p role="status">Reading the photo…</p>
    {:else if photo.refused}
      <p role="alert" class="max-w-xl text-pretty">{photo.refused}</p>
    {/if}
    {#if photo.read}
      <div class="grid gap-4 lg:grid-cols-[3fr_2fr]">
        <PhotoFaces {photo} {unit} />
        <div class="space-y-3">
          {#if photo.search.failure}
            <Failed what="The call could not be worked out." why={photo.search.failure} onretry={() => photo.ask()} />
          {:else if answer}
            {#if plan}
              <h3 class="condensed text-[24px] leading-tight font-bold" data-testid="photo-call">
                {callSentence(plan, unit)}
              </h3>
              <p class="text-soft">{keeperRateWords(plan)} keeper rate{inPrint ? ' in print' : ''}</p>
            {/if}
            <p>
              {groupWords(answer.group, unit)}{photo.assumed === null ? '' : `, as from ${photo.assumed}`}.
            </p>
            {#if sure}
              <p class="text-pretty" data-testid="photo-sure">
                {sure}
                {#if surer && surer.stop !== called}
                  <button type="button" class="underline underline-offset-2" onclick={() => make(surer.stop)}
                    >f/{surer.stop} in {ofHundred(surer.share)}</button
                  >
                {/if}
              </p>
            {/if}
          {:else}
            <Progress label="Working out the call" share={photo.search.progress} />
          {/if}
          <div class="grid grid-cols-2 gap-2">
            <LengthField
              label="Front row, if measured"
              bounds={bounds.fromLensMm}
              valueMm={photo.frontMm}
              placeholder="as read"
              onclear={() => {
                photo.frontMm = null;
                photo.ask();
                return true;
              }}
              onchange={(mm) => {
                photo.frontMm = mm;
                photo.ask();
                return true;
              }}
            />
            {#if !planned}<LengthField
                label="Background behind them"
                bounds={bounds.fromLensMm}
                valueMm={photo.behindMm}
                onchange={(mm) => {
                  photo.behindMm = mm;
                  photo.ask();
                  return true;
                }}
              />{/if}
          </div>
          {#if answer}<PhotoFloor group={answer.group} {unit} />{/if}
        </div>
      </div>
    {/if}
    <div class="flex flex-wrap gap-3">
      {#if answer}<Button onclick={() => make(null)}>{planned ? 'Make a setup beside it' : 'Make the setup'}</Button
        >{/if}
      <Button color={photo.read ? 'alternative' : undefined} onclick={() => chooser?.open()}
        >{photo.read ? 'Another photo' : 'Choose a photo'}</Button
      >
    </div>
  </div>
</Dialog>
