/** File System Access (WICG): the parts that TypeScript's own library does not have yet. */
interface Window {
  showDirectoryPicker(options?: { mode?: 'read' | 'readwrite' }): Promise<FileSystemDirectoryHandle>;
}
interface FileSystemHandle {
  requestPermission?(options: { mode: 'read' | 'readwrite' }): Promise<PermissionState>;
}
