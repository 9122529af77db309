/** Base64 of a file, without the address before it. @throws where this device cannot read it */
export function base64(blob: Blob): Promise<string> {
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve((reader.result as string).replace(/^[^,]*,/, ''));
    reader.onerror = () => reject(new Error('The file cannot be read from this device.'));
    reader.readAsDataURL(blob);
  });
}
