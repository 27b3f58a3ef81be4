type File = string | { url: string };

/** The browser's store of answers, as far as it is used here; what is put in can be read more than once. */
class Store {
  private readonly files = new Map<string, Response>();

  static address(file: File): string {
    return new URL(typeof file === "string" ? file : file.url, "http://mossbank.test").href;
  }

  async match(file: File): Promise<Response | undefined> {
    return this.files.get(Store.address(file))?.clone();
  }

  async put(file: File, response: Response): Promise<void> {
    this.files.set(Store.address(file), response);
  }

  async delete(file: File): Promise<boolean> {
    return this.files.delete(Store.address(file));
  }

  async keys(): Promise<Pick<Request, "url">[]> {
    return [...this.files.keys()].map((url) => ({ url }));
  }
}

export class BrowserCaches {
  private readonly stores = new Map<string, Store>();

  async open(name: string): Promise<Store> {
    const known = this.stores.get(name) ?? new Store();
    this.stores.set(name, known);
    return known;
  }

  async delete(name: string): Promise<boolean> {
    return this.stores.delete(name);
  }

  /** Paths of all that is kept. */
  async kept(): Promise<string[]> {
    const files = await Promise.all([...this.stores.values()].map((store) => store.keys()));
    return files.flat().map((file) => new URL(file.url).pathname);
  }
}
