/** How often somebody is sent on before a way counts as endless: as often as browsers go along. */
export const MAX_HOPS = 20;
