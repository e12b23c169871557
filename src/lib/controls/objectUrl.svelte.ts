/** An address of bytes for as long as the component shows them. */
export function objectUrl(blob: () => Blob | undefined): { readonly current: string } {
  let current = $state('');
  $effect(() => {
    const bytes = blob();
    const made = bytes ? URL.createObjectURL(bytes) : '';
    current = made;
    return () => {
      if (made !== '') URL.revokeObjectURL(made);
    };
  });
  return {
    get current() {
      return current;
    }
  };
}
