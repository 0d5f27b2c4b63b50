export const ROOT: string;
export function giveUp(message: string): never;
export function checkNode(): void;
export function run(command: string, args: string[], options?: object): void;
export function install(): void;
export function buildPage(): void;
export function buildServer(): void;
export function renderDemo(folder: string): void;
export function madeOnce(name: string, folders: readonly string[], folder: string, make: () => Promise<void>): Promise<void>;
