/**
 * A part of a job file as text that is JSON by itself: a member of the file, or one of its pieces.
 */
export type JobFilePart = { member: string; text: string } | { member: 'pieces'; piece: string };

/** A part of a job file that has more characters than `MAX_PART`. */
export class PartTooLarge extends Error {}

/** As many characters as one part may have: a piece with all its history is a fraction of it. */
const MAX_PART = 64 * 1024 ** 2;

const TAB = 9;
const LINE = 10;
const RETURN = 13;
const SPACE = 32;
const QUOTE = 34;
const COMMA = 44;
const COLON = 58;
const OPEN_LIST = 91;
const BACKSLASH = 92;
const CLOSE_LIST = 93;
const OPEN = 123;
const CLOSE = 125;
const BOM = 0xfeff;

const blank = (c: number) => c === SPACE || c === LINE || c === RETURN || c === TAB;

/** Where in the file the scanner stands, by what may come next. */
type Place =
  | 'start'
  | 'key or end'
  | 'key'
  | 'colon'
  | 'value'
  | 'member end'
  | 'piece or end'
  | 'piece'
  | 'piece end'
  | 'over';

const wrong = (): never => {
  throw new SyntaxError('no job file: its brackets, commas and quotes do not match');
};

/**
 * Parts a job file that comes in chunks of text into its members and, one by one, its pieces,
 * holding no more of it than the part it is in. Only brackets, commas and quotes are looked at:
 * each part is to be parsed by itself, and what is wrong in it comes out then. Throws SyntaxError
 * where parts do not make a file, PartTooLarge for one beyond `MAX_PART`.
 */
export class JobFileScanner {
  private place: Place = 'start';
  private member = '';
  private held = '';
  private depth = 0;
  private quoted = false;
  private escaped = false;
  private anyPieces = false;

  /** The parts that end in this chunk, in their order. */
  take(chunk: string): JobFilePart[] {
    const found: JobFilePart[] = [];
    let i = 0;
    while (i < chunk.length) {
      const c = chunk.charCodeAt(i);
      if (this.place === 'key' || this.place === 'value' || this.place === 'piece') {
        i = this.through(chunk, i, found);
        continue;
      }
      i++;
      if (blank(c)) continue;
      switch (this.place) {
        case 'start':
          if (c === OPEN) this.place = 'key or end';
          else if (c !== BOM) wrong();
          break;
        case 'key or end':
          if (c === CLOSE) this.place = 'over';
          else if (c === QUOTE) [this.place, i] = ['key', i - 1];
          else wrong();
          break;
        case 'colon':
          if (c !== COLON) wrong();
          this.place = 'value';
          break;
        case 'member end':
          if (c === CLOSE) this.place = 'over';
          else if (c === COMMA) this.place = 'key';
          else wrong();
          break;
        case 'piece or end':
          if (c === CLOSE_LIST) this.place = 'member end';
          else [this.place, i] = ['piece', i - 1];
          break;
        case 'piece end':
          if (c === CLOSE_LIST) this.place = 'member end';
          else if (c === COMMA) this.place = 'piece';
          else wrong();
          break;
        default:
          wrong();
      }
    }
    return found;
  }

  /** Says that no more comes. Throws where the file is not over yet. */
  end(): void {
    if (this.place !== 'over') wrong();
  }

  /** Through a key, a value or a piece to its end or that of the chunk; where it stands then. */
  private through(chunk: string, from: number, found: JobFilePart[]): number {
    let i = from;
    for (; i < chunk.length; i++) {
      const c = chunk.charCodeAt(i);
      if (this.quoted) {
        if (this.escaped) this.escaped = false;
        else if (c === BACKSLASH) this.escaped = true;
        else if (c === QUOTE) {
          this.quoted = false;
          if (this.place === 'key') return this.ends(chunk, from, i + 1, found);
        }
        continue;
      }
      if (this.held === '' && i === from && blank(c)) {
        // Before it begins.
        from++;
        continue;
      }
      if (this.place === 'key' && c !== QUOTE) wrong();
      if (c === QUOTE) this.quoted = true;
      else if (c === OPEN || c === OPEN_LIST) {
        if (
          this.place === 'value' &&
          this.member === 'pieces' &&
          this.depth === 0 &&
          c === OPEN_LIST
        ) {
          if (this.held !== '' || i !== from || this.anyPieces) wrong();
          this.anyPieces = true;
          this.place = 'piece or end';
          return i + 1;
        }
        this.depth++;
      } else if (c === CLOSE || c === CLOSE_LIST) {
        if (this.depth === 0) return this.ends(chunk, from, i, found);
        this.depth--;
      } else if (c === COMMA && this.depth === 0) return this.ends(chunk, from, i, found);
    }
    this.hold(chunk.slice(from));
    return i;
  }

  private hold(text: string): void {
    this.held += text;
    if (this.held.length > MAX_PART) throw new PartTooLarge('a part of the file is too large');
  }

  /** A key, value or piece is over; it is of what was held and of the chunk from `from` to `to`. */
  private ends(chunk: string, from: number, to: number, found: JobFilePart[]): number {
    this.hold(chunk.slice(from, to));
    const text = this.held;
    this.held = '';
    if (text === '') wrong();
    if (this.place === 'key') {
      this.member = JSON.parse(text) as string;
      this.place = 'colon';
    } else if (this.place === 'piece') {
      found.push({ member: 'pieces', piece: text });
      this.place = 'piece end';
    } else {
      found.push({ member: this.member, text });
      this.place = 'member end';
    }
    return to;
  }
}
