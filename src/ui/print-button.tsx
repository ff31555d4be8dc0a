'use client';

/** Prints the page as it is; the print styles make it black on white. */
export function PrintButton() {
  return (
    <button type="button" className="btn" onClick={() => window.print()}>
      Print
    </button>
  );
}
