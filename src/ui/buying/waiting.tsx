import { CloudOff } from 'lucide-react';

/** Says what is kept on this device until the server has it. */
export function Waiting({ count, isCut, message }: { count: number; isCut: boolean; message: string | undefined }) {
  if (count === 0 && !isCut && !message) return null;
  return (
    <p
      role="alert"
      className="mb-3 flex items-center gap-2 rounded-box border-l-4 border-l-warning bg-base-100 p-3 text-sm"
    >
      <CloudOff aria-hidden="true" size={20} className="shrink-0" />
      <span>
        {isCut ? 'No connection. ' : ''}
        {message ?? ''} {count > 0 && `${count} not sent yet.`}
      </span>
    </p>
  );
}
