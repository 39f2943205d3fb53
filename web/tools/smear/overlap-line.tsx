export function OverlapLine() {
  return null;
}
