import type { EntitySchemaColumnOptions } from 'typeorm';

/** Kinds of columns that the tables are made of. */
export const key: EntitySchemaColumnOptions = { type: 'text', primary: true };
export const text: EntitySchemaColumnOptions = { type: 'text' };
export const textOrNull: EntitySchemaColumnOptions = { type: 'text', nullable: true };
export const whole: EntitySchemaColumnOptions = { type: 'integer' };
export const wholeOrNull: EntitySchemaColumnOptions = { type: 'integer', nullable: true };
export const real: EntitySchemaColumnOptions = { type: 'real' };
export const realOrNull: EntitySchemaColumnOptions = { type: 'real', nullable: true };
export const flagOrNull: EntitySchemaColumnOptions = { type: 'boolean', nullable: true };
export const flag: EntitySchemaColumnOptions = { type: 'boolean' };
export const json: EntitySchemaColumnOptions = { type: 'simple-json' };
export const jsonOrNull: EntitySchemaColumnOptions = { type: 'simple-json', nullable: true };
