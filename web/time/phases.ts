/** How phases are shown: their colours, apart from accent, onion skin and layer marks. */
const PHASE_COLOURS = ['#d8c08a', '#d97f4a', '#b58ad0', '#6fa3a8', '#a9b06a', '#c77f8f'] as const;

export const phaseColour = (index: number): string => PHASE_COLOURS[index % PHASE_COLOURS.length]!;
