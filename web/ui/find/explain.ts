import { wordsIn, type Word } from '@maypole/core/guide/words';

/** What is said of a place on the screen. */
export interface Explanation {
  readonly name: string;
  /** What it does; empty where only its words are explained. */
  readonly help: string;
  readonly words: readonly Word[];
}

/** What of an element is read; elements of a page have it. */
export interface Explained {
  readonly parentElement: Explained | null;
  readonly textContent: string | null;
  getAttribute(name: string): string | null;
}

/** How far up from what the pointer is on something is looked for, and how long a text may be to count as a name. */
const [CLIMB, NAME] = [7, 60];
const MOST_WORDS = 3;

/** Text of an element as a name: short, on one line; empty where it is a whole passage. */
function nameOf(element: Explained): string {
  const given = element.getAttribute('data-name') ?? element.getAttribute('aria-label');
  const text = (given ?? element.textContent ?? '').replace(/\s+/g, ' ').trim();
  return text.length <= NAME ? text : '';
}

/** Explains an element by what it says of itself, or what it stands in does; null where there is nothing to say. */
export function explain(element: Explained | null): Explanation | null {
  let name = '';
  for (let at = element, i = 0; at && i < CLIMB; at = at.parentElement, i++) {
    name ||= nameOf(at);
    const help = at.getAttribute('data-help') ?? at.getAttribute('title') ?? '';
    const own = at.getAttribute('data-name') ?? name;
    const words = wordsIn(own).slice(0, MOST_WORDS);
    if (help && help !== own) return { name: own, help, words: words.filter((w) => w.text !== help) };
    if (words.length > 0) return { name: own, help: '', words };
  }
  return null;
}
