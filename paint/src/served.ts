/** Where files that scenes name are served. */
export function servedAt(address: string): string {
  return address.startsWith('files/') ? `/api/${address}` : address;
}
