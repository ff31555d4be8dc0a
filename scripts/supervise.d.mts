export function supervise(
  name: string,
  args: readonly string[],
  env: Record<string, string>,
  options?: { readonly show?: boolean; readonly onPid?: (pid: number) => void },
): Promise<{ readonly pid: number; stop(): Promise<void> }>;
