/** Colour marks for layers, apart from the onion skin's colours and the accent; the first is none. */
export const TAGS = ['transparent', '#c9776b', '#c7a35e', '#93a86a', '#6f9fb8', '#9a86b5', '#a89987'] as const;
