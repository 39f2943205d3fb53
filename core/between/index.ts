export { matrixOfSimilarity, powerOf, type Similarity, similarityBetween } from './similar.ts';
export { matchMarks, type Pairing, waysCome } from './match.ts';
export { bodyOf } from './outline.ts';
export { betweenAt } from './between.ts';
export { drawingOrder, EVEN, putFraction, fractionsFor, type Spread } from './spread.ts';
export { type Boil, boiled } from './boil.ts';
export { extrapolated, waysBack } from './ahead.ts';
export { marksOfPiece, nextPieceName, pieceNames, piecesOf, pieceTicks } from './pieces.ts';
export { type BetweenWork, computeBetweens, pairingsOf } from './lay.ts';
