// Before the first paint: the light chosen last time, so that a dark studio sees no white flash.
try {
  const kept = JSON.parse(localStorage.getItem('gangway.preferences') ?? '{}');
  if (kept.light === 'darkcloth') document.documentElement.dataset.light = 'darkcloth';
} catch {
  // No storage, or not ours: daylight.
}
