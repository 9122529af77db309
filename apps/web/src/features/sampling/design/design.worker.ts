import { expose } from 'comlink';
import { placeCores } from '@glenfold/agronomy/sampling';

/** The places of cores, worked out beside the page. */
const work = { design: placeCores };
export type DesignWork = typeof work;

expose(work);
