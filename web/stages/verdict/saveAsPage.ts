/** A part of the page as one file that opens from a folder, with nothing outside it: its style, fonts and pictures lie in it. */
export async function saveAsPage(part: Element, title: string): Promise<Blob> {
  const kept = part.cloneNode(true) as HTMLElement;
  for (const control of kept.querySelectorAll('.no-print, button, select, input, textarea, script')) control.remove();
  // What is folded away on the screen is open in a page that is read once.
  for (const folded of kept.querySelectorAll('details')) folded.open = true;
  for (const link of kept.querySelectorAll('a')) link.replaceWith(...link.childNodes);
  await Promise.all([...kept.querySelectorAll('img')].map(async (image) => image.setAttribute('src', await asData(image.src))));
  const style = await ownStyle();
  const page = `<!doctype html>
<html lang="en" data-bs-theme="light">
<head>
<meta charset="utf-8">
<meta name="viewport" content="width=device-width, initial-scale=1">
<meta http-equiv="Content-Security-Policy" content="default-src 'none'; style-src 'unsafe-inline'; font-src data:; img-src data:">
<title>${escaped(title)}</title>
<style>${style.replaceAll('</', '<\\/')}</style>
</head>
<body>
<main class="report one-page">${kept.innerHTML}</main>
</body>
</html>
`;
  return new Blob([page], { type: 'text/html' });
}

/** The style of the whole app as text, with what it refers to in it. */
async function ownStyle(): Promise<string> {
  const rules = [...document.styleSheets].flatMap((sheet) => [...sheet.cssRules].map((rule) => ({ text: rule.cssText, base: sheet.href ?? document.baseURI })));
  const told = await Promise.all(rules.map(({ text, base }) => (text.includes('url(') ? withData(text, base) : text)));
  return told.join('\n');
}

/** A rule with each address in it replaced by what lies there. */
async function withData(rule: string, base: string): Promise<string> {
  const addresses = [...rule.matchAll(/url\("([^"]+)"\)/g)].map((found) => found[1] as string);
  let text = rule;
  for (const address of new Set(addresses)) if (!address.startsWith('data:')) text = text.replaceAll(`url("${address}")`, `url("${await asData(new URL(address, base).href)}")`);
  return text;
}

/** @throws where it cannot be had */
async function asData(address: string): Promise<string> {
  const answer = await fetch(address);
  if (!answer.ok) throw new Error(`Part of the page could not be read (${answer.status}): try again`);
  const bytes = await answer.blob();
  return new Promise((resolve, reject) => {
    const reader = new FileReader();
    reader.onload = () => resolve(reader.result as string);
    reader.onerror = () => reject(reader.error);
    reader.readAsDataURL(bytes);
  });
}

const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
