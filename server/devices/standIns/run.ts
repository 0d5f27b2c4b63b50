import { openStandIns } from './standIns.ts';

// npm run devices: the stand-ins in a window of their own, until it is closed.
for (const { name, way } of await openStandIns().start()) if (way.by !== 'posted') console.log(`${name}: ${way.by} on ${way.host}:${way.port}`);
console.log('Adopt them in Field, under Devices. Ctrl-C stops them.');
