const CHOOSING = ['radio', 'range', 'checkbox'];

/** Whether somebody writes there. */
function writes(target: EventTarget | null): boolean {
  return target instanceof HTMLTextAreaElement || (target instanceof HTMLInputElement && !CHOOSING.includes(target.type));
}

/** Keys that work while an answer, the level or the picture has the focus, and rest while somebody writes. */
export const WHILE_CHOOSING = { enableOnFormTags: ['input', 'slider'], ignoreEventWhen: (event: KeyboardEvent) => writes(event.target) } as const;
