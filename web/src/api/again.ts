/** After how long it is looked again while pieces are being worked out, ms. */
export const AGAIN = 1000;
