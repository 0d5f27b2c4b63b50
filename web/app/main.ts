import './looks.ts';

// The libraries and the program are taken up in turns of their own, so that the page can answer in between:
// all at once they are one block of a tenth of a second and more.
await import('react-dom/client');
await import('react-router');
await import('@reduxjs/toolkit/query/react');
await import('../data/store.ts');
const { open } = await import('./open.tsx');

const root = document.getElementById('root');
if (!root) throw new Error('The page has no place to stand');
open(root);
// After the page stands: it is there to open again without the server.
const { keepProgram } = await import('../offline/useKeptHere.ts');
await keepProgram().catch(() => console.info('This browser does not keep the program: it opens only with the server.'));
