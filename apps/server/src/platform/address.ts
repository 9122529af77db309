/** An address without the slashes at its end. */
export function withoutEnd(address: string): string {
  let end = address.length;
  while (address[end - 1] === '/') end -= 1;
  return address.slice(0, end);
}
