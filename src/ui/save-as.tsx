import { Download } from 'lucide-react';

/** One menu for all files that a page can be saved as. */
export function SaveAs({ files }: { files: readonly (readonly [label: string, href: string])[] }) {
  return (
    <details className="dropdown dropdown-end">
      <summary className="btn">
        <Download aria-hidden="true" className="size-4" /> Save as
      </summary>
      <ul className="menu dropdown-content z-20 w-56 rounded-box border border-base-300 bg-base-100 p-2 shadow">
        {files.map(([label, href]) => (
          <li key={href}>
            <a href={href} download>
              {label}
            </a>
          </li>
        ))}
      </ul>
    </details>
  );
}
