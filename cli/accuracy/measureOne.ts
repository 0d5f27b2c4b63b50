import { measureFile } from '@marvet/core/measure/report';
import { withFileSource } from '../fileSource.ts';

// Measures one file and prints the seconds of processor time that this process took, its own start apart.
const path = process.argv[2];
if (!path) throw new Error('Give a file');
const before = process.cpuUsage();
withFileSource(path, (source) => measureFile(source));
const { user, system } = process.cpuUsage(before);
console.log((user + system) / 1e6);
