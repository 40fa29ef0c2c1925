// How many of a piece, as core says it on papers.

/** `qty 4 + 1 spare, first-off`. */
export function countWords(of: { quantity: number; spares?: number; first_off?: boolean }): string {
  const spares = of.spares ? ` + ${of.spares} ${of.spares === 1 ? 'spare' : 'spares'}` : '';
  return `qty ${of.quantity}${spares}${of.first_off ? ', first-off' : ''}`;
}
