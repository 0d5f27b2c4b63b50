/** Text that neither HTML nor WebVTT takes for markup, also between quotation marks. */
export const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
