export interface Change {
  readonly title: string;
  readonly items: readonly string[];
}

/** The sections of CHANGELOG.md: a title each, and its items, each on one line whatever it was wrapped at. */
export function changesOf(text: string): Change[] {
  const found: { title: string; items: string[] }[] = [];
  for (const line of text.split('\n')) {
    const last = found.at(-1);
    if (line.startsWith('## ')) found.push({ title: line.slice(3).trim(), items: [] });
    else if (last === undefined) continue;
    else if (line.startsWith('- ')) last.items.push(line.slice(2).trim());
    else if (line.trim() !== '' && last.items.length > 0) last.items.push(`${last.items.pop()} ${line.trim()}`);
  }
  return found;
}
