<script lang="ts">
  import { Button } from 'flowbite-svelte';
  import QRCode from 'qrcode';
  import type { Attachment } from 'svelte/attachments';
  import { clockOf } from '$core/setup/schedule';
  import { fileName, saveText, shareText } from '$lib/controls/download';
  import Dialog from '$lib/controls/Dialog.svelte';
  import { canSeal } from '$lib/state/transfer/sealed';
  import { getApp } from '$lib/state/app.svelte';
  import type { Waiting } from '$lib/state/transfer/transfer.svelte';

  /** The job for the phone: by a code, sealed, or as a file; and what the phone brings back. */
  let { open = $bindable() }: { open: boolean } = $props();
  const app = getApp();
  const { travel } = app;
  const job = $derived(app.open.job);
  let waiting = $state.raw<Waiting | null>(null);
  let collected = $state(false);
  const address = $derived(waiting ? `${location.origin}/pickup/${waiting.place}#${waiting.secret}` : '');
  const own = $derived(['localhost', '127.0.0.1', '[::1]'].includes(location.hostname));
  const until = $derived.by(() => {
    if (!waiting) return '';
    const at = new Date(waiting.until);
    return clockOf(at.getHours() * 60 + at.getMinutes());
  });
  /** How often it is looked whether the phone has it, ms. */
  const everyMs = 2000;

  async function make() {
    collected = false;
    waiting = await travel.send();
  }
  $effect(() => {
    const { place } = waiting ?? {};
    if (place === undefined || collected || !open) return;
    const timer = setInterval(() => {
      void travel.waits(place).then((waits) => {
        if (waits === false && waiting?.place === place) collected = true;
      });
    }, everyMs);
    return () => clearInterval(timer);
  });

  const code: Attachment<HTMLCanvasElement> = (canvas) => {
    void QRCode.toCanvas(canvas, address, { width: 264, margin: 3, errorCorrectionLevel: 'M' });
  };

  async function asFile(how: (text: string, name: string) => Promise<void> | void) {
    const id = app.open.id ?? '';
    const text = await app.files.exportText(id);
    if (text && job) await how(text, `${fileName(job.name)}.focalis.json`);
  }
</script>

<Dialog bind:open title="Send to phone" size="sm">
  <div class="space-y-4">
    {#if !canSeal()}
      <p class="text-pretty" data-testid="no-sealing">
        A code needs encryption, which browsers allow only over https or on this machine. Export the job as a file, or
        start Focalis with a certificate (docs/running.md).
      </p>
    {:else if collected}
      <p class="condensed text-[18px] font-bold">Collected.</p>
      <p class="text-pretty">When you’re done, tap “Send back” on the phone, then click “Receive” here.</p>
      <Button color="alternative" onclick={() => void make()}>Another code</Button>
    {:else if waiting}
      <div class="flex flex-wrap items-start gap-4">
        {#key address}<canvas
            {@attach code}
            class="border border-line"
            data-testid="qr"
            aria-label="Code with the address"
          ></canvas>{/key}
        <div class="min-w-40 flex-1 space-y-2">
          <p class="text-pretty">
            Scan it with your phone, open the link, tap “Collect”. Valid until {until}.
          </p>
          {#if own}
            <p class="border-l-4 border-pencil pl-2 text-pretty">
              {`This page is open as ${location.hostname}, which is another machine for the phone: open it by this machine’s own address first.`}
            </p>
          {/if}
          <label class="block"
            ><span class="label">Or copy the link</span>
            <input
              class="w-full border border-line bg-raised px-2 py-1 text-[12px]"
              readonly
              value={address}
              onfocus={(event) => event.currentTarget.select()}
            /></label
          >
        </div>
      </div>
      <p class="label text-pretty">Encrypted: only this link has the key. Deleted from the server once collected.</p>
    {:else}
      <p class="text-pretty">
        {job?.name} with its people, places, setups and kit. Works offline. What you adjust, tick and note on the phone comes
        back when you send it.
      </p>
      <div class="flex flex-wrap gap-2">
        <Button onclick={() => void make()} disabled={travel.busy !== ''}>Make a QR code</Button>
      </div>
    {/if}
    <div class="flex flex-wrap gap-2 border-t border-line pt-3">
      <Button color="alternative" onclick={() => void asFile(saveText)}>Save as a file</Button>
      {#if 'share' in navigator}
        <Button color="alternative" onclick={() => void asFile(shareText)}>Share the file</Button>
      {/if}
    </div>
    {#if travel.busy !== ''}<p role="status" class="label">{travel.busy} …</p>{/if}
  </div>
</Dialog>
