import { type DBSchema, type IDBPDatabase, deleteDB, openDB } from 'idb'

/** A file as far as it is kept: so many bytes of it, in pieces; whole once its hash was found right. */
export interface Kept {
  url: string
  sha256: string
  bytes: number
  pieces: number
  whole: boolean
  type: string
}

interface Rooms extends DBSchema {
  files: { key: string; value: Kept }
  pieces: { key: [string, number]; value: Blob }
  facts: { key: string; value: string }
}

/**
 * What a player keeps on its own disk: files in pieces, so that one that broke off goes on where it ended and none is ever in memory whole;
 * and facts, as what its pointer said last. What is written is written whole or not at all.
 */
export class Store {
  private constructor(private readonly db: IDBPDatabase<Rooms>) {}

  static async open(name: string): Promise<Store> {
    const db = await openDB<Rooms>(name, 1, {
      upgrade(rooms) {
        rooms.createObjectStore('files', { keyPath: 'url' })
        rooms.createObjectStore('pieces')
        rooms.createObjectStore('facts')
      },
      // Another page of a later build waits: this one lets go, and opens it anew when it is loaded.
      blocking: (_current, _blocked, event) => (event.target as IDBDatabase).close(),
    })
    return new Store(db)
  }

  static remove(name: string): Promise<void> {
    return deleteDB(name)
  }

  about(url: string): Promise<Kept | undefined> {
    return this.db.get('files', url)
  }

  all(): Promise<Kept[]> {
    return this.db.getAll('files')
  }

  /** Puts a piece behind those that are there. */
  async append(file: Omit<Kept, 'pieces' | 'bytes' | 'whole'>, piece: Blob): Promise<void> {
    const tx = this.db.transaction(['files', 'pieces'], 'readwrite')
    const kept = await tx.objectStore('files').get(file.url)
    const [pieces, bytes] = [kept?.pieces ?? 0, kept?.bytes ?? 0]
    await Promise.all([
      tx.objectStore('pieces').put(piece, [file.url, pieces]),
      tx.objectStore('files').put({ ...file, pieces: pieces + 1, bytes: bytes + piece.size, whole: false }),
      tx.done,
    ])
  }

  async finish(url: string): Promise<void> {
    const tx = this.db.transaction('files', 'readwrite')
    const kept = await tx.store.get(url)
    await Promise.all([kept && tx.store.put({ ...kept, whole: true }), tx.done])
  }

  async drop(url: string): Promise<void> {
    const tx = this.db.transaction(['files', 'pieces'], 'readwrite')
    await Promise.all([tx.objectStore('files').delete(url), tx.objectStore('pieces').delete(IDBKeyRange.bound([url, 0], [url, Infinity])), tx.done])
  }

  /** Its pieces in order, one after the other. */
  async *pieces(file: Kept): AsyncGenerator<Blob> {
    for (let n = 0; n < file.pieces; n++) {
      const piece = await this.db.get('pieces', [file.url, n])
      if (!piece) throw new Error(`piece ${n} of ${file.url} is not there`)
      yield piece
    }
  }

  /** A file that is whole; its bytes stay on the disk until they are read. */
  async blob(url: string): Promise<Blob | null> {
    const kept = await this.about(url)
    if (!kept?.whole) return null
    const pieces: Blob[] = []
    for await (const piece of this.pieces(kept)) pieces.push(piece)
    return new Blob(pieces, { type: kept.type })
  }

  /** Those whose names begin so. */
  async facts(prefix: string): Promise<string[]> {
    return this.db.getAll('facts', IDBKeyRange.bound(prefix, `${prefix}\uffff`))
  }

  fact(name: string): Promise<string | undefined> {
    return this.db.get('facts', name)
  }

  /** Written only where it is another: a pointer is asked for millions of times a year. */
  async keep(name: string, fact: string): Promise<boolean> {
    if ((await this.fact(name)) === fact) return false
    await this.db.put('facts', fact, name)
    return true
  }
}
