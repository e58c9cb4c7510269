export function TapesPage() {
  return null;
}
