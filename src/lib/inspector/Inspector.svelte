<script lang="ts">
  import { TabItem, Tabs } from 'flowbite-svelte';
  import { getWorkspace, type Tab } from '$lib/state/workspace.svelte';
  import BackgroundPanel from './BackgroundPanel.svelte';
  import CameraPanel from './CameraPanel.svelte';
  import IntentPanel from './IntentPanel.svelte';
  import PeoplePanel from './PeoplePanel.svelte';

  const workspace = getWorkspace();
</script>

<Tabs
  tabStyle="underline"
  classes={{ active: 'text-ink border-pencil dark:text-ink dark:border-pencil dark:bg-transparent' }}
  bind:selected={() => workspace.tab, (value) => (workspace.tab = (value ?? 'people') as Tab)}
>
  <TabItem key="people" title="People"><PeoplePanel /></TabItem>
  <TabItem key="background" title="Background"><BackgroundPanel /></TabItem>
  <TabItem key="intent" title="Intent"><IntentPanel /></TabItem>
  <TabItem key="camera" title="Camera"><CameraPanel /></TabItem>
</Tabs>
