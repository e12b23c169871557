/** Flowbite's controls at this instrument's density, once for all of them. Colours come from the theme variables. */
import type { ThemeConfig } from 'flowbite-svelte';

const field =
  'rounded-[2px] border-line bg-raised text-ink h-8 py-0 px-2 text-[13px] focus:border-cool focus:outline-2! focus:outline-solid! focus:outline-cool! ' +
  'dark:bg-raised dark:border-line dark:text-ink';

export const controls: ThemeConfig = {
  input: { input: field },
  select: { select: `${field} ps-2 pe-6 condensed bg-[position:right_0.3rem_center]` },
  label: 'mb-0.5 block text-[11.5px] leading-[1.3] font-normal text-soft dark:text-soft truncate',
  button: {
    base:
      'h-8 px-3 py-0 text-[13px] rounded-[2px] font-medium whitespace-nowrap border-line dark:border-line ' +
      'focus-within:ring-0 focus-visible:outline-2! focus-visible:outline-offset-2! focus-visible:outline-cool! focus-visible:outline-solid!'
  },
  tabs: {
    base: 'flex-wrap gap-x-5 gap-y-1 space-x-0',
    content: 'bg-transparent p-0 mt-3 dark:bg-transparent',
    divider: 'bg-line dark:bg-line'
  },
  tabItem: { button: 'px-0 pt-0 pb-1.5 text-[13px] font-medium' },
  // 24 px to press, 16 to see: the box is drawn within its border.
  checkbox: {
    base: 'size-6 border-4 border-transparent bg-clip-padding bg-origin-padding shadow-[inset_0_0_0_1px_var(--ink-soft)] bg-raised checked:bg-pencil checked:shadow-none me-1'
  },
  modal: { base: 'rounded-[2px] bg-raised text-ink dark:bg-raised' }
};
