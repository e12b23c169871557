// Runs before the first paint so that a dark venue is never lit by a white flash.
try {
  const theme = localStorage.getItem('focalis.theme');
  if (theme === 'studio' || theme === 'dim' || theme === 'sun') document.documentElement.dataset.theme = theme;
} catch {
  // Storage is barred: the studio theme stands.
}
