import type { APIResponse, Locator, Page } from '@playwright/test';

/**
 * A person whose actions are counted: a click or tap, a drag, a text typed where the focus is, with the Enter
 * that ends it, and a shortcut are one each.
 */
export class CountedPage {
  private actions = 0;

  constructor(
    readonly page: Page,
    private readonly isTouch = false,
  ) {}

  get count(): number {
    return this.actions;
  }

  async click(target: Locator): Promise<void> {
    this.actions++;
    await (this.isTouch ? target.tap() : target.click());
  }

  /** Clicks on the letter over a field, which selects the whole of it. */
  async clickLetterOver(cell: Locator): Promise<void> {
    this.actions++;
    const box = (await cell.boundingBox())!;
    await this.page.mouse.click(box.x + box.width / 2, box.y - 12);
  }

  async press(keys: string): Promise<void> {
    this.actions++;
    await this.page.keyboard.press(keys);
  }

  /** Types over what is selected where the focus is, and ends with Enter, once something is shown. */
  async type(text: string, shown?: Locator): Promise<void> {
    this.actions++;
    await this.page.keyboard.type(text.slice(0, 1));
    await this.page.keyboard.insertText(text.slice(1));
    await shown?.waitFor();
    await this.page.keyboard.press('Enter');
  }

  /** One request of a program. */
  async put(path: string, token: string, data: object): Promise<APIResponse> {
    this.actions++;
    return this.page.request.put(path, { headers: { authorization: `Bearer ${token}` }, data });
  }

  /** Drags from the middle of one element to the middle of another. */
  async drag(from: Locator, to: Locator): Promise<void> {
    this.actions++;
    await from.hover();
    await this.page.mouse.down();
    await to.hover();
    await this.page.mouse.up();
  }
}
