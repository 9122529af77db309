/** Share of an amount by which whole things may fall short: what a number loses when it is typed or told in another unit. */
const SLACK = 0.001;

/**
 * How many whole things (bags, loads, fills, barrows) an amount takes. A shortfall below a thousandth of it takes no
 * further one: 25 lb/1000 ft² on 8 000 ft² is five bags of 40 lb, however its grams and square metres were rounded.
 *
 * @param ratio amount ÷ what one holds, dimensionless
 * @param of the whole amount as such a ratio, where `ratio` is only what is missing of it
 */
export const wholes = (ratio: number, of = ratio): number => Math.max(0, Math.ceil(ratio - SLACK * of - 1e-9));
