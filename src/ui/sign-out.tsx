/** The button at the end of the head of every page. */
export const SignOut = ({ action }: { action: () => Promise<void> }) => (
  <form action={action}>
    <button
      type="submit"
      className="btn btn-sm shrink-0 whitespace-nowrap border-neutral-content/40 bg-transparent text-neutral-content hover:bg-neutral-content/15"
    >
      Sign out
    </button>
  </form>
);
