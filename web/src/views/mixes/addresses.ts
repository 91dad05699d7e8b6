/** The addresses that a row of a listener's sources moves. The house rides the channel itself. */
export const levelAddress = (channel: number, bus: string): string =>
  bus === "house" ? `channel/${channel}/fader` : `channel/${channel}/send/${bus}/level`;

export const switchAddress = (channel: number, bus: string): string =>
  bus === "house" ? `channel/${channel}/house/on` : `channel/${channel}/send/${bus}/on`;

export const panAddress = (channel: number, bus: string): string =>
  bus === "house" ? `channel/${channel}/pan` : `channel/${channel}/send/${bus}/pan`;
