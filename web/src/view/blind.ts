/** The same things in an order nobody chose (Durstenfeld's shuffle: CACM 7, 1964, algorithm 235). */
export function shuffled<T>(things: readonly T[], random: () => number = Math.random): T[] {
  const order = [...things]
  for (let i = order.length - 1; i > 0; i--) {
    const k = Math.floor(random() * (i + 1))
    const held = order[i] as T
    order[i] = order[k] as T
    order[k] = held
  }
  return order
}
