export function BellowsPage() {
  return null;
}
