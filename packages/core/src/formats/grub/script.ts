import { plainText, tokensOf, type Token, type Word } from './words';

/** A statement of a script. `line` is where it begins in its text. */
export type Statement =
  | { is: 'command'; words: readonly Word[]; body: readonly Statement[] | undefined; line: number }
  | { is: 'if'; cases: readonly { when: readonly Statement[]; then: readonly Statement[] }[]; line: number }
  | { is: 'loop'; over: readonly Word[]; variable: string; body: readonly Statement[]; line: number }
  | { is: 'while'; until: boolean; when: readonly Statement[]; body: readonly Statement[]; line: number }
  | { is: 'function'; name: string; body: readonly Statement[]; line: number };

/** Statements within statements are followed so deep; a script of more is not read to its end. */
const MAX_DEPTH = 40;

/** Thrown inside while a script is taken apart, never out of it. */
class Broken extends Error {}

class Parser {
  private at = 0;
  constructor(private readonly tokens: readonly Token[]) {}

  private peek(): Token | undefined {
    return this.tokens[this.at];
  }

  /** The keyword or command that stands here; undefined where it is quoted, put together or no word. */
  private keyword(): string | undefined {
    const token = this.peek();
    return token && 'word' in token && !token.quoted ? plainText(token.word) : undefined;
  }

  private skipEnds(): void {
    for (
      let t = this.peek();
      t && 'mark' in t && (t.mark === ';' || t.mark === 'end of line');
      t = this.peek()
    )
      this.at += 1;
  }

  private expect(word: string): void {
    this.skipEnds();
    if (this.keyword() !== word) throw new Broken();
    this.at += 1;
  }

  /** Statements up to one of these keywords, or to the brace that closes a block. */
  statements(ends: readonly string[], braced: boolean, depth: number): Statement[] {
    if (depth > MAX_DEPTH) throw new Broken();
    const out: Statement[] = [];
    for (;;) {
      this.skipEnds();
      const token = this.peek();
      if (!token) {
        if (braced || ends.length > 0) throw new Broken();
        return out;
      }
      if ('mark' in token) {
        if (token.mark !== '}' || !braced) throw new Broken();
        this.at += 1;
        return out;
      }
      const keyword = this.keyword();
      if (keyword !== undefined && ends.includes(keyword)) return out;
      out.push(this.statement(keyword, token.line, depth));
    }
  }

  private block(depth: number): Statement[] {
    const open = this.peek();
    if (!open || !('mark' in open) || open.mark !== '{') throw new Broken();
    this.at += 1;
    return this.statements([], true, depth + 1);
  }

  private words(): Word[] {
    const out: Word[] = [];
    for (let t = this.peek(); t && 'word' in t; t = this.peek()) {
      out.push(t.word);
      this.at += 1;
    }
    return out;
  }

  private statement(keyword: string | undefined, line: number, depth: number): Statement {
    switch (keyword) {
      case 'if': {
        this.at += 1;
        const cases = [this.oneCase(depth)];
        for (;;) {
          const next = this.keyword();
          this.at += 1;
          if (next === 'fi') return { is: 'if', cases, line };
          if (next === 'elif') cases.push(this.oneCase(depth));
          else if (next === 'else') cases.push({ when: [], then: this.statements(['fi'], false, depth + 1) });
          else throw new Broken();
        }
      }
      case 'while':
      case 'until': {
        this.at += 1;
        const when = this.statements(['do'], false, depth + 1);
        this.at += 1;
        const body = this.statements(['done'], false, depth + 1);
        this.at += 1;
        return { is: 'while', until: keyword === 'until', when, body, line };
      }
      case 'for': {
        this.at += 1;
        const [name, within, ...over] = this.words();
        if (!name || !within || plainText(within) !== 'in') throw new Broken();
        this.expect('do');
        const body = this.statements(['done'], false, depth + 1);
        this.at += 1;
        return { is: 'loop', variable: plainText(name) ?? '', over, body, line };
      }
      case 'function': {
        this.at += 1;
        const [name] = this.words();
        this.skipEnds();
        if (!name) throw new Broken();
        return { is: 'function', name: plainText(name) ?? '', body: this.block(depth), line };
      }
      default: {
        const words = this.words();
        const next = this.peek();
        const braced = next && 'mark' in next && next.mark === '{';
        return { is: 'command', words, body: braced ? this.block(depth) : undefined, line };
      }
    }
  }

  private oneCase(depth: number): { when: Statement[]; then: Statement[] } {
    const when = this.statements(['then'], false, depth + 1);
    this.at += 1;
    return { when, then: this.statements(['elif', 'else', 'fi'], false, depth + 1) };
  }
}

/**
 * Takes a script apart into its statements (GRUB manual, “Shell-like scripting”). Undefined where its grammar is broken or
 * it nests too deeply: GRUB then runs none of it.
 */
export function parseGrubScript(script: string): Statement[] | undefined {
  try {
    return new Parser(tokensOf(script)).statements([], false, 0);
  } catch (error) {
    if (error instanceof Broken) return undefined;
    throw error;
  }
}
