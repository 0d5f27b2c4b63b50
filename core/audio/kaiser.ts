/** Modified Bessel function of the first kind, order 0, by its series. */
function besselI0(x: number): number {
  let term = 1;
  let sum = 1;
  for (let k = 1; k < 40; k++) {
    term *= (x / (2 * k)) ** 2;
    sum += term;
  }
  return sum;
}

/**
 * Kaiser window: 1 in the middle, falling to either side.
 * @param place from -1 at one end over 0 in the middle to 1 at the other; 0 outside
 * @param beta larger is softer: 7 is some 70 dB down, 9 some 90 dB
 */
export function kaiser(place: number, beta: number): number {
  return Math.abs(place) < 1 ? besselI0(beta * Math.sqrt(1 - place * place)) / besselI0(beta) : 0;
}
