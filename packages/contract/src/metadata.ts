// Decorators write down what they know by this; it has to be there before the first of them runs, in whatever order a
// bundle puts the parts of the contract.
import 'reflect-metadata';

export { Transform, Type } from 'class-transformer';
