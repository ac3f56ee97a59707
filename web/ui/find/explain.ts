import { wordsIn, type Word } from '@maypole/core/guide/words';

/** The explanation of an element. */
export interface Explanation {
  readonly name: string;
  /** What it does; empty if only its words are explained. */
  readonly help: string;
  readonly words: readonly Word[];
}

/** The part of a DOM element that is read. */
export interface Explained {
  readonly parentElement: Explained | null;
  readonly textContent: string | null;
  getAttribute(name: string): string | null;
}

/** How many ancestors are searched, and the most characters of a name. */
const [CLIMB, NAME] = [7, 60];
const MOST_WORDS = 3;

/** An element's text as a name: short, on one line; empty for a passage. */
function nameOf(element: Explained): string {
  const given = element.getAttribute('data-name') ?? element.getAttribute('aria-label');
  const text = (given ?? element.textContent ?? '').replace(/\s+/g, ' ').trim();
  return text.length <= NAME ? text : '';
}

/** Explains an element by its own labels or those of an ancestor; null if there is nothing to say. */
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
