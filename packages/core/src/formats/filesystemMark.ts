/** What a stretch of bytes says that it is. Sizes in bytes; `uuid` as the usual tools print it. */
export interface FilesystemMark {
  kind: string;
  label?: string | undefined;
  uuid?: string | undefined;
  /** What the file system itself claims to span. */
  bytes?: number | undefined;
}
