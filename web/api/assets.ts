/** A file that Spur itself serves, such as a typeface. @throws TypeError without a connection */
export async function fetchAsset(url: string): Promise<Uint8Array> {
  return new Uint8Array(await (await fetch(url)).arrayBuffer());
}
