/** Gives mocha the words the unit tests are written in: it runs them again and again in one process, where Jest loads everything anew. */
import { expect } from 'expect';
import fc from 'fast-check';
import Mocha from 'mocha';
import { format } from 'node:util';

// The same cases for every mutant: what kills one has to be the mutant.
fc.configureGlobal({ seed: 1 });

const eachBy = (run) => (table) => (title, work) => {
  table.forEach((cells, i) => {
    const row = Array.isArray(cells) ? cells : [cells];
    run(`${format(title, ...row)} #${i}`, () => work(...row));
  });
};

const { bdd } = Mocha.interfaces;
Mocha.interfaces.bdd = (suite) => {
  bdd(suite);
  suite.on('pre-require', (context) => {
    const { it, describe: block, before, after } = context;
    const test = (title, work) => it(title, () => work());
    const describe = (title, work) => block(title, () => void work());
    test.each = eachBy(test);
    describe.each = eachBy(describe);
    Object.assign(context, { test, it: test, describe, beforeAll: before, afterAll: after, expect });
  });
};
