/** Controls of the page as hands and eyes find them. */
import { expect, type Locator, type Page } from '@playwright/test';

/** Chooses of a list that opens where it stands: by what is kept, by its words, or by its place. */
export async function choose(
  select: Locator,
  option: string | { readonly label: string } | { readonly index: number },
): Promise<void> {
  await select.click();
  const list = select.page().getByRole('listbox');
  const options = list.getByRole('option');
  if (typeof option === 'string') await list.locator(`[role=option][data-value="${option}"]`).click();
  else if ('index' in option) await options.nth(option.index).click();
  else await options.filter({ hasText: option.label }).first().click();
  await expect(list).toHaveCount(0);
}

/** Controls by how their tips begin. */
export const tipped = (scope: Page | Locator, begins: string): Locator => scope.locator(`[data-tip^="${begins}"]`);
