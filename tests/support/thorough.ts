/** How often something drawn by chance is tried: a few times in every run of the tests, many times with `npm run test:thorough`. */
export const tried = (few: number, many: number): number => (process.env.VINKEL_THOROUGH ? many : few);
