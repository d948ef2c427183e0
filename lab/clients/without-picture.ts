import type { Page } from '@playwright/test';

/**
 * Keeps the page from drawing its strip while it measures: the measuring worker's progress is dropped before the page
 * hears of it. For comparing accuracy with and without the picture (LAB_PICTURE=off).
 */
export async function withoutPicture(page: Page): Promise<void> {
  await page.addInitScript(() => {
    const Plain = window.Worker;
    window.Worker = class extends Plain {
      override set onmessage(hear: ((event: MessageEvent<{ kind?: string }>) => void) | null) {
        super.onmessage = (event: MessageEvent<{ kind?: string }>) => {
          if (event.data.kind !== 'progress') hear?.(event);
        };
      }
    };
  });
}
