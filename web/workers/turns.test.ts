import { Turns } from './turns.ts';

describe('turns', () => {
  it('lets work go on that nobody waits for', async () => {
    await expect(new Turns().next()).resolves.toBeUndefined();
  });

  it('holds work until it may go on, however often it was stopped', async () => {
    const turns = new Turns();
    turns.giveWay(true);
    turns.giveWay(true);
    const order: string[] = [];
    const work = (async () => {
      await turns.next();
      order.push('work');
    })();
    await new Promise((later) => setTimeout(later, 20));
    order.push('picture');
    turns.giveWay(false);
    await work;
    expect(order).toEqual(['picture', 'work']);
  });

  it('holds work that was stopped again before it could go on', async () => {
    const turns = new Turns();
    turns.giveWay(true);
    const work = turns.next();
    await new Promise((later) => setTimeout(later, 5));
    turns.giveWay(false);
    turns.giveWay(true);
    let went = false;
    void work.then(() => (went = true));
    await new Promise((later) => setTimeout(later, 20));
    expect(went).toBe(false);
    turns.giveWay(false);
    await work;
    expect(went).toBe(true);
  });
});
