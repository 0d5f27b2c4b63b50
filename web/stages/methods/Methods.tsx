import { Marked } from 'marked';
import { useEffect } from 'react';
import { Link, useLocation } from 'react-router';
import text from '../../../docs/methods.md?raw';

const slug = (heading: string) => heading.toLowerCase().replace(/[^a-z]+/g, '-');

const marked = new Marked({
  renderer: {
    heading({ tokens, depth }) {
      const html = this.parser.parseInline(tokens);
      return `<h${depth} id="${slug(html)}">${html}</h${depth}>`;
    },
    // What lies beside the document in the sources has no page of its own.
    link({ tokens }) {
      return this.parser.parseInline(tokens);
    },
  },
});
const html = marked.parse(text, { async: false });

/** How every figure is measured: the same text as in the sources, at a heading that a figure links to. */
export default function Methods() {
  const { hash } = useLocation();
  useEffect(() => {
    document.getElementById(hash.slice(1))?.scrollIntoView();
  }, [hash]);
  return (
    <main className="front methods">
      <Link to="/">All trials</Link>
      {/* The text ships with the app; nothing that anybody enters gets into it. */}
      {/* biome-ignore lint/security/noDangerouslySetInnerHtml: the document is our own */}
      <article dangerouslySetInnerHTML={{ __html: html }} />
    </main>
  );
}
