<script lang="ts">
  interface Props {
    address: string;
    frame: { readonly width: number; readonly height: number };
    testid: string;
  }
  /** A picture that says no more than what stands beside it, at a size of its own. */
  let { address, frame, testid }: Props = $props();
</script>

<img
  src={address}
  alt=""
  width={frame.width}
  height={frame.height}
  style:width="{frame.width}px"
  style:height="{frame.height}px"
  data-testid={testid}
/>
