/** Pictures decoded in a process of their own, ended where one takes too long or too much memory. */
import { fork, type ChildProcess } from 'node:child_process';
import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { inLine } from './in-line.ts';

/** What one picture may take: ms, and bytes of the process. */
const DECODING_LIMITS = { ms: 10_000, bytes: 1200 * 1024 * 1024 } as const;
/** How often its memory is looked at, ms. */
const LOOK_MS = 40;
/** Bytes of a page of memory, as Linux counts them. */
const PAGE = 4096;

interface ToDecode {
  readonly content: Buffer;
  readonly kind: string;
  /** Whether its bytes are kept; else it is drawn as a PNG. */
  readonly keeps: boolean;
  /** Pixels at most. */
  readonly pixels: number;
}

interface Decoded {
  readonly width: number;
  readonly height: number;
  /** The PNG it was drawn as, or null where its bytes are kept. */
  readonly content: Uint8Array | null;
}

/** What came of a picture: it is broken, has too many pixels, or took too much. */
export type Answer = Decoded | { readonly tooLarge: number } | { readonly tookTooMuch: true } | null;

// Beside this file as it is written; beside the server as it is built, whose parts lie in a folder of their own.
const PROGRAM = fileURLToPath(
  new URL(import.meta.url.endsWith('.ts') ? './picture-process.mjs' : '../picture-process.js', import.meta.url),
);

let running: ChildProcess | null = null;
let asked = 0;

function started(): ChildProcess {
  if (running?.connected) return running;
  const child = fork(PROGRAM, {
    serialization: 'advanced',
    execArgv: [],
    stdio: ['ignore', 'ignore', 'ignore', 'ipc'],
  });
  // It holds nobody up who wants to end.
  child.unref();
  child.channel?.unref();
  running = child;
  return child;
}

/** Bytes of memory a process takes; 0 where that cannot be told. */
async function memoryOf({ pid }: ChildProcess): Promise<number> {
  try {
    return Number((await readFile(`/proc/${pid}/statm`, 'utf8')).split(' ')[1]) * PAGE;
  } catch {
    return 0;
  }
}

/** @param picture its bytes, or the file they lie in. */
function answerOf(picture: Omit<ToDecode, 'content'> & { readonly content: Buffer | string }): Promise<Answer> {
  const child = started();
  const id = (asked += 1);
  return new Promise((resolve) => {
    const end = (answer: Answer): void => {
      clearTimeout(timer);
      clearInterval(looking);
      child.off('message', heard);
      child.off('exit', gone);
      resolve(answer);
    };
    const heard = (said: { id: number; answer: Answer }): void => {
      if (said.id === id) end(said.answer);
    };
    const stop = (): void => {
      child.kill('SIGKILL');
      if (running === child) running = null;
      end({ tookTooMuch: true });
    };
    // It went down by itself: at this picture.
    const gone = (): void => {
      if (running === child) running = null;
      end({ tookTooMuch: true });
    };
    const timer = setTimeout(stop, DECODING_LIMITS.ms);
    const looking = setInterval(() => {
      void memoryOf(child).then((bytes) => {
        if (bytes > DECODING_LIMITS.bytes) stop();
      });
    }, LOOK_MS);
    child.on('message', heard);
    child.once('exit', gone);
    child.send({ id, ...picture }, (error) => {
      if (error) stop();
    });
  });
}

/** Bytes from which a picture is handed over as a file: told to another process it lies in memory three times. */
const LARGE = 4 * 1024 * 1024;

async function answerByFile(picture: ToDecode): Promise<Answer> {
  const folder = await mkdtemp(join(tmpdir(), 'tallow-picture-'));
  try {
    const path = join(folder, 'picture');
    await writeFile(path, picture.content, { mode: 0o600 });
    return await answerOf({ ...picture, content: path });
  } finally {
    await rm(folder, { recursive: true, force: true });
  }
}

const line = inLine();

/** Decodes a picture, after those that came before. */
export const decodePicture = (picture: ToDecode): Promise<Answer> =>
  line(() => (picture.content.length > LARGE ? answerByFile(picture) : answerOf(picture)));
