export function supervise(
  name: string,
  args: readonly string[],
  env: Record<string, string>,
  options?: { readonly show?: boolean; readonly onPid?: (pid: number) => void; readonly hangs?: number },
): Promise<{ readonly pid: number; stop(): Promise<void> }>;
