export function chromiumOptions(): { executablePath: string; args: string[] };
