/** Bodies that the server sends, as entities. */
import { readEntity, type Entity } from '@tallow/core/document';

/** @param name of what they make up. @throws what is wrong with the first that cannot be read, for the user. */
export const readBodies = (bodies: readonly unknown[], name: string): Entity[] =>
  bodies.map((body) => {
    const read = readEntity(body);
    if ('ok' in read) return read.ok;
    const [problem] = read.problems;
    throw new Error(`“${name}” cannot be read here: ${problem?.field ?? ''} ${problem?.message ?? ''}`);
  });
