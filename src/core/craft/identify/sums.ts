export function mostOf(values: Float64Array): number {
  let most = 0;
  for (const value of values) if (value > most) most = value;
  return most;
}

export function sumOf(values: Float64Array): number {
  let sum = 0;
  for (const value of values) sum += value;
  return sum;
}

/** The places of the largest values, the largest first. */
export function topOf(values: Float64Array, most: number): number[] {
  const top: number[] = [];
  for (let index = 0; index < values.length; index += 1) {
    const value = values[index] as number;
    if (top.length === most && value <= (values[top[most - 1] as number] as number)) continue;
    let place = top.length;
    while (place > 0 && (values[top[place - 1] as number] as number) < value) place -= 1;
    top.splice(place, 0, index);
    if (top.length > most) top.pop();
  }
  return top;
}
